<?php

declare(strict_types=1);

use Octavox\Bench\Stopwatch;
use Octavox\Bench\Workbench;

// What is kept: the same bytes through cp and sync, in turn. Taking an old file away takes time of its own, which counts for neither.
return function (Workbench $bench): void {
    // Its pictures are holes; a copy has bytes there.
    copy($bench->movie('sparse.mp4', 120, 800_000), "$bench->folder/picture.mp4");
    $works = ['two hours of AAC out of MP4 into M4A' => [$bench->movie('sound.mp4', 7200), 'aac'],
        'WAV into CAF' => [$bench->long('wav'), 'caf'], 'MP4 into mov, the picture kept' => ["$bench->folder/picture.mp4", 'mov'],
        'MP4 into mkv, the picture kept' => ["$bench->folder/picture.mp4", 'mkv']];
    foreach ($works as $what => [$source, $format]) {
        $verified = $copied = [];
        $result = $bench->make($source, $format);
        rename($result, "$bench->folder/kept");
        $mine = $copy = 0.0;
        $clock = new Stopwatch;
        for ($round = 0; $round < 18; $round++) {
            array_map(fn (string $path): bool => ! file_exists($path) || unlink($path), [$result, "$bench->folder/copied"]);
            exec('sync');
            $parts = [
                function () use ($bench, $source, $format, $round, &$clock, &$mine): void {
                    $began = hrtime(true);
                    // With the verification in every other round; without it brought to the disk at once, as cp and sync do it.
                    $clock = new Stopwatch($round % 2 === 0 ? null : "$bench->folder/out");
                    $bench->make($source, $format, $clock);
                    $mine = (hrtime(true) - $began) / 1e9;
                },
                function () use ($bench, &$copy): void {
                    [$copy] = $bench->run(['/bin/sh', '-c', sprintf('cp %1$s/kept %1$s/copied && sync %1$s/copied',
                        escapeshellarg($bench->folder))]);
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
        $bench->line($what, sprintf('%.2f × the speed of cp and sync', $bench->median($copied)), '≥ 0.8');
        $bench->line('  and read back, verified', sprintf('%.2f × the speed of cp and sync', $bench->median($verified)));
    }
};
