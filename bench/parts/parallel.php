<?php

declare(strict_types=1);

use Octavox\Bench\Workbench;

// Two processors on a batch, on one long file, on one video.
return function (Workbench $bench): void {
    mkdir("$bench->folder/batch");
    for ($index = 0; $index < 4; $index++) {
        copy($bench->wave(150), "$bench->folder/batch/$index.wav");
    }
    $ratio = function (string ...$command) use ($bench): float {
        $ratios = [];
        for ($round = 0; $round < 3; $round++) {
            [$both] = $bench->run(array_values($command));
            [$one] = $bench->run(['/usr/bin/taskset', '-c', '0', ...array_values($command)]);
            $ratios[] = $one / $both;
        }

        return $bench->median($ratios);
    };
    $bench->line('four files, WAV to MP3, on two processors',
        sprintf('%.2f times as fast as on one', $ratio(...$bench->command("$bench->folder/batch", 'mp3'))), '≥ 1.8');
    foreach (['wav' => 'flac', 'mp3' => 'wav', 'flac' => 'wav'] as $from => $to) {
        $bench->line(sprintf('one file of 25 minutes, %s to %s', strtoupper($from), strtoupper($to)),
            sprintf('%.2f times as fast as on one', $ratio(...$bench->command($bench->long($from), $to))));
    }
    copy($bench->movie('sparse.mp4', 120, 800_000), "$bench->folder/picture.mp4");
    $bench->line('one video of 2 minutes, its AAC to Opus in MKV', sprintf('%.2f times as fast as on one',
        $ratio(...$bench->command("$bench->folder/picture.mp4", 'mkv', '--sound', 'opus'))));
};
