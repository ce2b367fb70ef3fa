<?php

declare(strict_types=1);

// Continues bench.php: further pairs of codecs, what is kept against cp, reading MKV and transport streams, two processors on a batch.

use Octavox\Bench\Stopwatch;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Parallel\CoreScript;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;

/**
 * @var string $folder
 * @var string $octavox
 * @var Closure(list<string>, ?string=): array{float, float} $run
 * @var Closure(list<float>): float $median
 * @var Closure(): void $clear
 * @var Closure(string, string, string): void $line
 * @var string $library
 */
$make = function (string $path, string $format, ?Stopwatch $clock = null) use ($folder): string {
    $plan = Planning::plan(Reader::read($path), Spec::sound(Outputs::named($format) ?? throw new LogicException($format),
        RateControl::none(), "$folder/out", existing: IfExists::Replace));

    return (new Maker($clock ?? new Stopwatch))->make($plan, 'bench')->path;
};
$compiled = (int) trim((string) shell_exec('command -v gcc >/dev/null && gcc -O2 -w -o '.escapeshellarg("$folder/pairs").' '
    .escapeshellarg(__DIR__.'/pairs.c')
    ." $library/libFLAC.so.12 $library/libopus.so.0 $library/libvorbisenc.so.2 $library/libvorbis.so.0 $library/libmpg123.so.0 -lm 2>/dev/null; echo $?")) === 0;
$wave = $make("$folder/wav.mp4", 'wav');
copy($wave, "$folder/long.wav");
$raw = fopen("$folder/long.raw", 'wb');
fwrite($raw, substr((string) file_get_contents("$folder/long.wav"), 44));
fclose($raw);
$waveHead = fn (int $size): string => 'RIFF'.pack('V', 36 + $size).'WAVEfmt '.pack('VvvVVvv', 16, 1, 2, 48000, 192000, 4,
    16).'data'.pack('V', $size);
// Five minutes are enough for what is encoded slowly.
$size = 300 * 48000 * 4;
file_put_contents("$folder/short.raw", file_get_contents("$folder/long.raw", length: $size));
file_put_contents("$folder/short.wav", $waveHead($size).file_get_contents("$folder/short.raw"));
copy($make("$folder/long.wav", 'flac'), "$folder/long.flac");
copy($make("$folder/long.wav", 'mp3'), "$folder/long.mp3");
foreach (['wav-flac' => ['long.wav', 'flac', 'long.raw'], 'wav-opus' => ['short.wav', 'opus', 'short.raw'],
    'wav-vorbis' => ['short.wav', 'vorbis', 'short.raw'], 'flac-wav' => ['long.flac', 'wav', 'long.flac'],
    'mp3-wav' => ['long.mp3', 'wav', 'long.mp3']] as $pair => [$from, $to, $in]) {
    $ratios = $making = [];
    for ($round = 0; $round < 8; $round++) {
        $clear();
        [$mine] = $run([$octavox, 'make', "$folder/$from", '--into', "$folder/out", '--format', $to, '--exists', 'replace']);
        $clear();
        [$bare] = $compiled ? $run(["$folder/pairs", $pair, "$folder/$in", "$folder/bare"]) : [NAN];
        if ($round > 0) {
            $clear();
            $clock = new Stopwatch;
            $make("$folder/$from", $to, $clock);
            $ratios[] = $mine / $bare;
            $making[] = $clock->making() / $bare;
        }
    }
    $line(str_replace('-', ' to ', strtoupper($pair)).', against the bare library calls in C',
        sprintf('%.2f times as long', $median($ratios)), '≤ 1.15');
    $line('  the making alone, not verified', sprintf('%.2f times as long', $median($making)), '');
}

// What is kept: the same bytes through cp and sync, in turn. Taking an old file away takes time of its own, which counts for neither.
$kept = function (string $what, Closure $work, string $result) use ($folder, $run, $median, $line): void {
    $verified = $copied = [];
    $work(new Stopwatch);
    rename($result, "$folder/kept");
    $mine = $copy = 0.0;
    $clock = new Stopwatch;
    for ($round = 0; $round < 26; $round++) {
        array_map(fn (string $path) => @unlink($path), [$result, "$folder/copied"]);
        exec('sync');
        $parts = [
            function () use ($work, $folder, $round, &$clock, &$mine): void {
                $began = hrtime(true);
                // With the verification in every other round; without it brought to the disk at once, as cp and sync do it.
                $work($clock = new Stopwatch($round % 2 === 0 ? null : "$folder/out"));
                $mine = (hrtime(true) - $began) / 1e9;
            },
            function () use ($run, $folder, &$copy): void {
                [$copy] = $run(['/bin/sh', '-c',
                    'cp '.escapeshellarg("$folder/kept").' '.escapeshellarg("$folder/copied").' && sync '
                    .escapeshellarg("$folder/copied")]);
            },
        ];
        // Neither always finds the memory that the other has left.
        foreach (intdiv($round, 2) % 2 === 0 ? $parts : array_reverse($parts) as $part) {
            $part();
            exec('sync');
        }
        if ($round > 1) {
            $round % 2 === 0 ? $verified[] = $copy / $mine : $copied[] = $copy / $clock->untilOnDisk();
        }
    }
    $line($what, sprintf('%.2f × the speed of cp and sync', $median($copied)), '≥ 0.8');
    $line('  and read back, verified', sprintf('%.2f × the speed of cp and sync', $median($verified)), '');
};
Octavox\Bench\Video::write("$folder/sound.mp4", $config, $packets, 7200, 0);
$kept('two hours of AAC out of MP4 into M4A', fn (Stopwatch $clock) => $make("$folder/sound.mp4", 'aac', $clock), "$folder/out/sound.m4a");
$kept('WAV into CAF', fn (Stopwatch $clock) => $make("$folder/long.wav", 'caf', $clock), "$folder/out/long.caf");
Octavox\Bench\Video::write("$folder/sparse.mp4", $config, $packets, 120, 800_000);
// Its pictures are holes; a copy has bytes there.
copy("$folder/sparse.mp4", "$folder/picture.mp4");
$film = Reader::read("$folder/picture.mp4");
foreach (['mov', 'mkv'] as $container) {
    $work = fn (Stopwatch $clock): string => (new Maker($clock))
        ->make(Planning::plan($film, Spec::video(VideoOutputs::named($container) ?? throw new LogicException($container), null,
            RateControl::none(), "$folder/out", existing: IfExists::Replace)), 'bench')->path;
    $kept("MP4 into $container, the picture kept", $work, "$folder/out/picture.$container");
}

// Reading long films of other containers.
Octavox\Bench\Video::matroska("$folder/film.mkv", $config, $packets, 7200, 400_000);
$began = hrtime(true);
$reading = Reader::read("$folder/film.mkv");
$line(sprintf('reading a 2-hour MKV of %.1f GB', $reading->bytes / 1e9),
    sprintf('%.3f s, %.2f MB read', (hrtime(true) - $began) / 1e9, $reading->bytesRead / 1e6), '< 0.3 s');
Octavox\Bench\Video::transport("$folder/film.ts", $config, $packets, 7200, 100_000);
$began = hrtime(true);
$reading = Reader::read("$folder/film.ts");
$line(sprintf('reading a 2-hour transport stream of %.1f GB', $reading->bytes / 1e9),
    sprintf('%.3f s, %.2f MB read', (hrtime(true) - $began) / 1e9, $reading->bytesRead / 1e6), '< 0.3 s');

// Two processors on a batch.
mkdir("$folder/batch");
for ($index = 0; $index < 4; $index++) {
    copy($make("$folder/mp3.mp4", 'wav'), "$folder/batch/$index.wav");
}
[$both] = $run([$octavox, 'make', "$folder/batch", '--into', "$folder/out", '--format', 'mp3', '--exists', 'replace']);
[$one] = $run(['/usr/bin/taskset', '-c', '0', $octavox, 'make', "$folder/batch", '--into', "$folder/out", '--format', 'mp3',
    '--exists', 'replace']);
$line('four files on two processors against one', sprintf('%.2f times as fast', $one / $both), '≥ 1.8');

// Two processors on one long file.
foreach (['wav' => 'flac', 'mp3' => 'wav', 'flac' => 'wav'] as $from => $to) {
    $ratios = [];
    for ($round = 0; $round < 3; $round++) {
        $command = [$octavox, 'make', "$folder/long.$from", '--into', "$folder/out", '--format', $to, '--exists', 'replace'];
        [$both] = $run($command);
        [$one] = $run(['/usr/bin/taskset', '-c', '0', ...$command]);
        $ratios[] = $one / $both;
    }
    $line(sprintf('one file of 25 minutes, %s to %s, on two processors', strtoupper($from), strtoupper($to)),
        sprintf('%.2f times as fast as on one', $median($ratios)), '');
}

// Listening, hearing at once, cutting.
// Two hours of WAV: the 25 minutes again and again.
$two = fopen("$folder/two.wav", 'wb');
$size = 7200 * 48000 * 4;
fwrite($two, $waveHead($size));
$raw = (string) file_get_contents("$folder/long.raw");
for ($left = $size; $left > 0; $left -= strlen($raw)) {
    fwrite($two, substr($raw, 0, $left));
}
fclose($two);
unset($raw);
foreach (['two.wav' => 7200, 'wav.mp4' => 1500] as $name => $seconds) {
    file_put_contents("$folder/wish.json",
        json_encode(['path' => "$folder/$name", 'track' => Reader::read("$folder/$name")->sound()[0]->number,
            'ribbon' => "$folder/long.ribbon"]));
    [$took] = $run(CoreScript::command('analysis'), "$folder/wish.json");
    $line(sprintf('ribbons, loudness, true peak, image of %d minutes, %s', $seconds / 60, $name),
        sprintf('%.0f × real time', $seconds / $took), '≥ 500, or as fast as it decodes');
}
$excerpt = function (string $path, int $track, int $from) use ($folder): float {
    file_put_contents("$folder/wish.json", json_encode(['path' => $path, 'track' => $track, 'from' => $from, 'count' => 48000]));
    $began = hrtime(true);
    $process = proc_open(CoreScript::command('excerpt', brief: true),
        [['file', "$folder/wish.json", 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']], $pipes);
    fread($pipes[1], 4096);
    $first = (hrtime(true) - $began) / 1e9;
    stream_get_contents($pipes[1]);
    proc_close($process);

    return $first;
};
foreach (['a 2-hour transport stream' => ["$folder/film.ts", 2], 'a 2-hour MP4' => ["$folder/film.mp4", 2],
    'a 2-hour MKV' => ["$folder/film.mkv", 2]] as $what => [$path, $number]) {
    $line("first sound from the middle of $what",
        sprintf('%.2f s',
            $median([$excerpt($path, $number, 3600 * 48000), $excerpt($path, $number, 3000 * 48000), $excerpt($path, $number,
                6000 * 48000)])),
        '< 1 s');
}
foreach (['wav', 'aac'] as $format) {
    $reading = Reader::read("$folder/film.mp4");
    $plan = Planning::plan($reading, Spec::sound(Outputs::named($format) ?? throw new LogicException($format), RateControl::none(),
        "$folder/out", existing: IfExists::Replace, shaping: new SoundSpec(pieces: '1:00:00-1:00:10')));
    file_put_contents("$folder/plan.json", json_encode($plan->toArray()));
    $before = $reading->bytesRead;
    [$took] = $run([...CoreScript::command('maker', brief: true), 'cut'], "$folder/plan.json");
    $opened = Octavox\Core\Reading\Opener::open("$folder/film.mp4");
    foreach ($opened->media->packets($opened->sound()[0], 3600 * 48000, 3610 * 48000) as $packet) {
    }
    $line("ten seconds out of a 2-hour MP4 of 11.4 GB into $format",
        sprintf('%.2f s, %.1f MB read', $took, $opened->media->source()->bytesRead() / 1e6), 'no more than needed');
}
