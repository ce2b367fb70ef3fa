<?php

declare(strict_types=1);

// Decodes a stretch of one sound track: JSON {path, track or sound (its place among them), stated, from, count} on the standard input,
// interleaved 16-bit samples, least significant byte first, on the standard output.

use Octavox\Core\Analysis\Excerpt;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Failure;
use Octavox\Core\Reading\Opener;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

try {
    $wish = json_decode((string) stream_get_contents(STDIN), true, 8, JSON_THROW_ON_ERROR);
    $source = Opener::open((string) $wish['path'], HeaderlessFormat::parseOptional($wish['stated'] ?? null));
    $track = isset($wish['sound']) ? ($source->sound()[(int) $wish['sound'] - 1]->number ?? 0) : (int) $wish['track'];
    foreach (Excerpt::of($source, $track, (int) $wish['from'], (int) $wish['count']) as $samples) {
        if (@fwrite(STDOUT, $samples) === false) {
            exit(0);
        }
    }
} catch (Failure $failure) {
    fwrite(STDERR, $failure->getMessage());
    exit(1);
} catch (Throwable $bug) {
    fwrite(STDERR, (string) $bug);
    exit(1);
}
