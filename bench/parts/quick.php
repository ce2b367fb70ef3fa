<?php

declare(strict_types=1);

use Octavox\Bench\Limits;
use Octavox\Bench\Workbench;

// In a minute and a half, whether anything has become slower: against the bare library calls in C, cp, one processor, the start of PHP.
return function (Workbench $bench): bool {
    $limits = Limits::kept(dirname(__DIR__).'/limits.json');
    $turns = function (int $rounds, callable $one, callable $other) use ($bench): float {
        for ($ratios = []; count($ratios) < $rounds;) {
            $bench->clear();
            $mine = $one();
            $bench->clear();
            $ratios[] = $mine / $other();
        }

        return $bench->median($ratios);
    };
    $run = fn (string ...$command): Closure => fn (): float => $bench->run(array_values($command))[0];
    $judge = fn (string $name, Closure $measure) => $bench->line($name, $limits->judge($name, $measure));

    $bare = $bench->compiled('pairs', 'libFLAC.so.12', 'libopus.so.0', 'libvorbisenc.so.2', 'libvorbis.so.0', 'libmpg123.so.0');
    [$flac, $mp3] = [$bench->long('flac', 240), $bench->long('mp3', 240)];
    $pairs = ['wav-flac' => [$bench->wave(240), $bench->samples(240)], 'flac-wav' => [$flac, $flac], 'mp3-wav' => [$mp3, $mp3],
        'wav-opus' => [$bench->wave(100), $bench->samples(100)]];
    foreach ($bare === null ? throw new RuntimeException('Without a C compiler there is nothing to measure against.') : $pairs as $pair => [$from, $in]) {
        $judge("$pair, against the bare library calls", fn (): float => $turns(3,
            $run(...$bench->command($from, explode('-', $pair)[1])), $run(...[$bare, $pair, $in, "$bench->folder/bare"])));
    }
    $flac = $bench->command($bench->wave(240), 'flac');
    $judge('one file to FLAC on two processors, against one', fn (): float => $turns(3, $run(...$flac), $run(...['/usr/bin/taskset', '-c',
        '0', ...$flac])));

    copy($bench->movie('sparse.mp4', 120, 800_000), "$bench->folder/picture.mp4");
    rename($bench->make("$bench->folder/picture.mp4", 'mkv'), "$bench->folder/kept");
    $copy = ['/bin/sh', '-c', sprintf('cp %1$s/kept %1$s/copied && sync %1$s/copied', escapeshellarg($bench->folder))];
    $judge('a video kept in MKV and verified, against cp and sync', fn (): float => $turns(5,
        $run(...$bench->command("$bench->folder/picture.mp4", 'mkv')), $run(...$copy)));

    $many = fn (string ...$command): Closure => function () use ($bench, $command): float {
        for ($took = 0.0, $round = 0; $round < 6; $round++) {
            $took += $bench->run(array_values($command))[0];
        }

        return $took;
    };
    $small = $bench->wave(5);
    $start = $many(PHP_BINARY, '-n', '-r', '');
    $judge('the start of read, against that of PHP', fn (): float => $turns(3, $many($bench->octavox, 'read', $small), $start));
    $judge('the start of make, against that of PHP', fn (): float => $turns(3, $many(...$bench->command($small, 'flac')), $start));
    $film = $bench->film('mkv', 3600);
    $judge('facts of a one-hour MKV, against those of a small file', fn (): float => $turns(3, $run(...[$bench->octavox, 'read', $film]),
        $run(...[$bench->octavox, 'read', $small])));

    return $limits->areKept();
};
