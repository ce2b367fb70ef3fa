<?php

declare(strict_types=1);

// Carries out one plan: JSON {plan, originals, journal} on the standard input, lines of JSON on the standard output. Argument: token of the temporary name.

use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Journal;
use Octavox\Core\Make\LineProgress;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\Originals;
use Octavox\Core\Plan\Plan;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

$say = function (array $message): void {
    fwrite(STDOUT, json_encode($message, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRESERVE_ZERO_FRACTION)."\n");
};

try {
    $wish = (array) json_decode((string) stream_get_contents(STDIN), true, 32, JSON_THROW_ON_ERROR);
    $plan = Plan::fromArray((array) ($wish['plan'] ?? []));
    $originals = Originals::of([$plan->source, ...array_filter((array) ($wish['originals'] ?? []), is_string(...))]);
    $delivery = (new Maker(new LineProgress(STDOUT)))->make($plan, (string) ($argv[1] ?? 'x'), $originals, is_string($wish['journal'] ?? null) ? new Journal($wish['journal']) : null);
    $say(['delivery' => $delivery->toArray()]);
} catch (Failure $failure) {
    $say(['error' => ['code' => $failure->code(), 'message' => $failure->getMessage(), 'path' => $failure->path]]);
    exit(1);
} catch (Throwable $bug) {
    fwrite(STDERR, (string) $bug);
    if (getenv('OCTAVOX_TRACE') !== false) {
        file_put_contents((string) getenv('OCTAVOX_TRACE'), $bug."\n", FILE_APPEND);
    }
    $fault = InternalFault::of($bug);
    $say(['error' => ['code' => $fault->code(), 'message' => $fault->getMessage(), 'path' => null]]);
    exit(1);
}
