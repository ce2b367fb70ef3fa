<?php

declare(strict_types=1);

use Octavox\Bench\Workbench;
use Octavox\Core\Parallel\CoreScript;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;

// Analysis, hearing at once, cutting.
return function (Workbench $bench): void {
    foreach ([[$bench->wave(7200), 7200, 'WAV'], [$bench->movie('wav.mp4', 1500), 1500, 'AAC']] as [$path, $seconds, $what]) {
        $asked = $bench->asked(['path' => $path, 'track' => Reader::read($path)->sound()[0]->number,
            'waveform' => "$bench->folder/long.waveform"]);
        [$took] = $bench->run(CoreScript::command('analysis'), $asked);
        $bench->line(sprintf('waveform, loudness, true peak, image of %d minutes, %s', $seconds / 60, $what),
            sprintf('%.0f × real time', $seconds / $took), '≥ 500, or as fast as it decodes');
    }
    $first = function (string $path, int $from) use ($bench): float {
        $asked = $bench->asked(['path' => $path, 'track' => 2, 'from' => $from, 'count' => 48000]);
        $began = hrtime(true);
        $process = proc_open(CoreScript::command('excerpt', brief: true), [['file', $asked, 'r'], ['pipe', 'w']], $pipes)
            ?: throw new RuntimeException('No process could be started.');
        fread($pipes[1], 4096);
        $took = (hrtime(true) - $began) / 1e9;
        stream_get_contents($pipes[1]);
        proc_close($process);

        return $took;
    };
    foreach (['ts', 'mp4', 'mkv'] as $extension) {
        $path = $bench->film($extension);
        $took = array_map(fn (int $second): float => $first($path, $second * 48000), [3600, 3000, 6000]);
        $bench->line("first sound from the middle of a 2-hour $extension", sprintf('%.2f s', $bench->median($took)), '< 1 s');
    }
    foreach (['wav', 'aac'] as $format) {
        $asked = $bench->asked(['plan' => $bench->plan($bench->film('mp4'), $format, '1:00:00-1:00:10')->toArray()]);
        [$took] = $bench->run([...CoreScript::command('maker', brief: true), 'cut'], $asked);
        $opened = Opener::open($bench->film('mp4'));
        iterator_count((fn () => yield from $opened->media->packets($opened->sound()[0], 3600 * 48000, 3610 * 48000))());
        $bench->line("ten seconds out of a 2-hour MP4 of 11.4 GB into $format",
            sprintf('%.2f s, %.1f MB read', $took, $opened->media->source()->bytesRead() / 1e6), 'no more than needed');
    }
};
