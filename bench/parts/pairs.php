<?php

declare(strict_types=1);

use Octavox\Bench\Stopwatch;
use Octavox\Bench\Workbench;

// Further pairs of codecs against the bare library calls. Five minutes are enough for what is encoded slowly.
return function (Workbench $bench): void {
    $bare = $bench->compiled('pairs', 'libFLAC.so.12', 'libopus.so.0', 'libvorbisenc.so.2', 'libvorbis.so.0', 'libmpg123.so.0');
    $raw = ['wav-flac' => [$bench->long('wav'), $bench->samples(1500)], 'wav-opus' => [$bench->wave(300), $bench->samples(300)],
        'wav-vorbis' => [$bench->wave(300), $bench->samples(300)], 'flac-wav' => [$bench->long('flac'), $bench->long('flac')],
        'mp3-wav' => [$bench->long('mp3'), $bench->long('mp3')]];
    foreach ($raw as $pair => [$from, $in]) {
        $to = explode('-', $pair)[1];
        $ratios = $making = [];
        for ($round = 0; $round < 4; $round++) {
            $bench->clear();
            [$took] = $bench->run($bench->command($from, $to));
            $bench->clear();
            [$other] = $bare === null ? [NAN] : $bench->run([$bare, $pair, $in, "$bench->folder/bare"]);
            $bench->clear();
            $bench->make($from, $to, $clock = new Stopwatch);
            if ($round > 0) {
                [$ratios[], $making[]] = [$took / $other, $clock->making() / $other];
            }
        }
        $bench->line(str_replace('-', ' to ', strtoupper($pair)).', against the bare library calls in C',
            sprintf('%.2f times as long', $bench->median($ratios)), '≤ 1.15');
        $bench->line('  the making alone, not verified', sprintf('%.2f times as long', $bench->median($making)));
    }
};
