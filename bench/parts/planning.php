<?php

declare(strict_types=1);

use Octavox\Bench\Workbench;
use Octavox\Core\Make\SourceInspector;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Plan\SourceKnowledge;
use Octavox\Core\Reading\Reader;

// Planning alone: everything that is known is given, nothing is opened.
return function (Workbench $bench): void {
    $reading = Reader::read($bench->movie('wav.mp4', 1500));
    $specs = ['remade' => new OutputSpec('mp3', place: '/x'), 'kept' => new OutputSpec('aac', place: '/x'),
        'split, cut and set' => new OutputSpec('flac', sounds: [new SoundSpec(layout: 'split', pieces: '1:00-2:00', level: 'peak:-1')],
            place: '/x')];
    foreach ($specs as $what => $spec) {
        $lines = array_fill(0, 500, new OrderLine($reading));
        $took = [];
        for ($round = 0; $round < 5; $round++) {
            $began = hrtime(true);
            $results = array_sum(array_map(fn ($line): int => count($line->plans), OrderPlanner::plan($lines, $spec)));
            $took[] = (hrtime(true) - $began) / 1e9;
        }
        $bench->line("500 lines, $what", sprintf('%.0f results a second', $results / $bench->median($took)), '≥ 2,000');
    }
    // A piece of each, kept: what its packets say of the marks was read before.
    $line = new OrderLine($reading, new OutputSpec(sounds: [new SoundSpec(pieces: '1:00-2:00')]));
    /** @var SourceKnowledge $found */
    $found = (new ReflectionMethod(SourceInspector::class, 'find'))->invoke(null, $line, OrderPlanner::plan([$line], $specs['kept'])[0]
        ->wanted);
    $knowing = $line->knowing($found);
    $began = hrtime(true);
    $planned = OrderPlanner::plan(array_fill(0, 500, $knowing), $specs['kept']);
    $bench->line('500 lines with a piece each, packets kept', sprintf('%.3f s, %d planned', (hrtime(true) - $began) / 1e9,
        count(array_filter($planned, fn ($line): bool => $line->plans !== []))), '< 0.5 s');
};
