<?php

declare(strict_types=1);

// Carries out one plan: JSON on the standard input, lines of JSON on the standard output. Argument: token of the temporary name.

use Octavox\Core\Failure;
use Octavox\Core\Make\LineProgress;
use Octavox\Core\Make\Maker;
use Octavox\Core\Plan\Plan;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

$say = function (array $message): void {
    fwrite(STDOUT, json_encode($message, JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRESERVE_ZERO_FRACTION)."\n");
};

try {
    $plan = json_decode((string) stream_get_contents(STDIN), true, 32, JSON_THROW_ON_ERROR);
    $delivery = (new Maker(new LineProgress(STDOUT)))->make(Plan::fromArray(is_array($plan) ? $plan : []), (string) ($argv[1] ?? 'x'));
    $say(['delivery' => $delivery->toArray()]);
} catch (Failure $failure) {
    $say(['error' => ['code' => $failure->code(), 'message' => $failure->getMessage(), 'path' => $failure->path]]);
    exit(1);
} catch (Throwable $bug) {
    fwrite(STDERR, (string) $bug);
    if (getenv('OCTAVOX_TRACE') !== false) {
        file_put_contents((string) getenv('OCTAVOX_TRACE'), $bug."\n", FILE_APPEND);
    }
    $say(['error' => ['code' => 'internal', 'message' => 'Octavox made a mistake of its own while working on this file; nothing was left behind. Please report it with the file’s facts.', 'path' => null]]);
    exit(1);
}
