<?php

declare(strict_types=1);

use Octavox\Bench\Stopwatch;
use Octavox\Bench\Workbench;

// Whole conversions against programs in C that call the same libraries and do nothing else.
return function (Workbench $bench): void {
    $bare = $bench->compiled('baseline', 'libfaad.so.2', 'libmp3lame.so.0', 'libsamplerate.so.0');
    foreach (['wav' => 1500, 'mp3' => 150] as $format => $seconds) {
        $movie = $bench->movie("$format.mp4", $seconds);
        $packets = $bench->open("$bench->folder/$format.packets", 'wb');
        fwrite($packets, pack('V', strlen($bench->config)).$bench->config);
        for ($index = 0; $index < intdiv($seconds * 48000, 1024); $index++) {
            $packet = $bench->packets[$index % count($bench->packets)];
            fwrite($packets, pack('V', strlen($packet)).$packet);
        }
        fclose($packets);
        $rate = $format === 'wav' ? [] : ['--kbps', '192'];
        $ratios = $mine = $making = [];
        for ($round = 0; $round < 6; $round++) {
            $bench->clear();
            [$took] = $bench->run($bench->command($movie, $format, ...$rate));
            $bench->clear();
            [$in] = $bare === null ? [NAN] : $bench->run([$bare, "$bench->folder/$format.packets", $format, "$bench->folder/bare"]);
            $bench->clear();
            $bench->make($movie, $format, $clock = new Stopwatch);
            if ($round > 0) {
                [$mine[], $ratios[], $making[]] = [$took, $took / $in, $clock->making() / $in];
            }
        }
        $bench->line("AAC to $format, against the bare library calls in C",
            sprintf('%.2f times as long (%.0f × real time)', $bench->median($ratios), $seconds / $bench->median($mine)), '≤ 1.15');
        $bench->line('  the making alone, not verified', sprintf('%.2f times as long', $bench->median($making)));
    }
};
