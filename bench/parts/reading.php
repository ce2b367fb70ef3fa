<?php

declare(strict_types=1);

use Octavox\Bench\Video;
use Octavox\Bench\Workbench;
use Octavox\Core\Parallel\CoreScript;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;

// Reading long videos and many small files, and how much of a long one is read and held while its sound is made.
return function (Workbench $bench): void {
    foreach (['mp4', 'mkv', 'ts'] as $extension) {
        $path = $bench->film($extension);
        $began = hrtime(true);
        $reading = Reader::read($path);
        $bench->line(sprintf('reading a 2-hour %s of %.1f GB', strtoupper($extension), $reading->bytes / 1e9),
            sprintf('%.3f s, %.2f MB read', (hrtime(true) - $began) / 1e9, $reading->bytesRead / 1e6), '< 0.3 s');
    }
    $asked = $bench->asked(['plan' => $bench->plan($bench->film('mp4'), 'wav')->toArray()]);
    [$took, $memory] = $bench->run([...CoreScript::command('maker'), 'bench'], $asked);
    $bench->line('memory of a result of 2 hours (AAC to WAV)', sprintf('%.0f MiB', $memory), '< 128 MiB');
    $bench->line('  its speed', sprintf('%.0f × real time', 7200 / $took));

    $source = Opener::open($bench->film('mp4'));
    $sound = 0;
    foreach ($source->media->packets($source->tracks[1], 0, PHP_INT_MAX >> 2) as $packet) {
        $sound += strlen($packet->data);
    }
    $bench->line('bytes read for all of its sound', sprintf('%.1f MB of %.1f MB sound, %.1f GB picture',
        $source->media->source()->bytesRead() / 1e6, $sound / 1e6, $source->tracks[0]->codedBytes / 1e9), 'no picture');

    mkdir("$bench->folder/small");
    Video::write("$bench->folder/small/0.mp4", $bench->config, $bench->packets, 5, 0);
    for ($index = 1; $index < 400; $index++) {
        link("$bench->folder/small/0.mp4", "$bench->folder/small/$index.mp4");
    }
    [$took] = $bench->run([$bench->octavox, 'read', "$bench->folder/small", '--json']);
    $bench->line('small files read from a folder', sprintf('%.0f a second', 400 / $took), '≥ 200');
};
