<?php

declare(strict_types=1);

// Analyses one sound track: JSON {path, track, stated, waveform} on the standard input; answers with {analysis}.

use Octavox\Core\Analysis\ParallelAnalysis;
use Octavox\Core\Decode\TrackMissing;
use Octavox\Core\Json\Fields;
use Octavox\Core\Parallel\ChildScript;
use Octavox\Core\Parallel\LineProgress;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Stated;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

// Whoever makes something or wants to hear something comes first.
@proc_nice(10);
exit(ChildScript::run(function (Fields $asked): array {
    $path = $asked->text('path');
    $source = Opener::open($path, Stated::parse($asked->textOrNull('stated')));
    $track = $source->track($asked->number('track')) ?? throw TrackMissing::number($path, $asked->number('track'));
    @unlink($asked->text('waveform'));

    return ['analysis' => ParallelAnalysis::run($source, $track, $asked->text('waveform'), new LineProgress(STDOUT))->toArray()];
}));
