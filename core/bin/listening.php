<?php

declare(strict_types=1);

// Listens to one sound track: JSON {path, track, stated, ribbon} on the standard input, lines of JSON on the standard output.

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Analysis\LosslessSize;
use Octavox\Core\Analysis\ParallelAnalysis;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\LineProgress;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Reading\Opener;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

// Whoever makes something or wants to hear something comes first.
@proc_nice(10);
$say = function (array $message): void {
    fwrite(STDOUT, json_encode($message, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRESERVE_ZERO_FRACTION)."\n");
};

try {
    $wish = json_decode((string) stream_get_contents(STDIN), true, 8, JSON_THROW_ON_ERROR);
    $source = Opener::open((string) $wish['path'], HeaderlessFormat::parseOptional($wish['stated'] ?? null));
    $track = $source->track((int) $wish['track']) ?? throw CannotPlan::noSuchTrack((string) $wish['path'], (int) $wish['track'], '');
    $ribbon = (string) $wish['ribbon'];
    if (isset($wish['from'])) {
        // The later half, for the process that began this one.
        $sink = FileSink::within($ribbon);
        $listening = Analyzer::of($source, $track, $sink, (int) $wish['from']);
        $listening->hear($source, $track, (int) $wish['from'], PHP_INT_MAX);
        fwrite(STDOUT, $listening->part()->packed());
        exit(0);
    }
    @unlink($ribbon);
    $sink = FileSink::create($ribbon);
    $listening = Analyzer::of($source, $track, $sink);
    $middle = Analyzer::middle($source, $track);
    $other = $middle === null ? null : ParallelAnalysis::start(['from' => $middle] + $wish);
    $progress = new LineProgress(STDOUT);
    $listening->hear($source, $track, 0, $other === null ? PHP_INT_MAX : $middle, $progress);
    $later = $other?->heard();
    if ($later !== null) {
        $listening->join($later);
    } elseif ($other !== null) {
        $listening->hear($source, $track, $middle, PHP_INT_MAX, $progress);
    }
    $measured = $listening->finish();
    $say(['heard' => $measured->withPacked(LosslessSize::bits($source, $track, $measured->samples))->toArray()]);
    $sink->close();
} catch (Failure $failure) {
    $say(['error' => ['code' => $failure->code(), 'message' => $failure->getMessage()]]);
    exit(1);
} catch (Throwable $bug) {
    fwrite(STDERR, (string) $bug);
    $fault = InternalFault::of($bug);
    $say(['error' => ['code' => $fault->code(), 'message' => $fault->getMessage()]]);
    exit(1);
}
