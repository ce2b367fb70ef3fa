<?php

declare(strict_types=1);

// Finds which packets of a sound track are copied for a piece of it: JSON {path, track, stated, format, from, until} on the standard input,
// {cut: …} or {error: …} on the standard output.

use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\FrameBorders;
use Octavox\Core\Reading\Opener;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

try {
    $wish = json_decode((string) stream_get_contents(STDIN), true, 8, JSON_THROW_ON_ERROR);
    $stated = HeaderlessFormat::parseOptional($wish['stated'] ?? null);
    $path = (string) $wish['path'];
    $audio = Opener::open($path, $stated)->track((int) $wish['track'])->sound ?? throw CannotPlan::noSuchTrack($path, (int) $wish['track'], '');
    $cut = (new FrameBorders)->around($path, $stated, (int) $wish['track'], $audio, Outputs::named((string) $wish['format']), (int) $wish['from'], (int) $wish['until']);
    $answer = ['cut' => $cut?->toArray()];
} catch (Failure $failure) {
    $answer = ['error' => ['code' => $failure->code(), 'message' => $failure->getMessage()]];
} catch (Throwable $bug) {
    fwrite(STDERR, (string) $bug);
    $fault = InternalFault::of($bug);
    $answer = ['error' => ['code' => $fault->code(), 'message' => $fault->getMessage()]];
}
fwrite(STDOUT, json_encode($answer, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE));
