<?php

declare(strict_types=1);

// Decodes a stretch of one sound track: JSON {path, track or sound (its place among them), stated, from, count} on the standard input,
// interleaved 16-bit samples, least significant byte first, on the standard output; what fails is told on the standard error only.

use Octavox\Core\Analysis\Excerpt;
use Octavox\Core\Json\Fields;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Stated;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

try {
    $asked = new Fields((array) json_decode((string) stream_get_contents(STDIN), true, 8, JSON_THROW_ON_ERROR));
    $source = Opener::open($asked->text('path'), Stated::parse($asked->textOrNull('stated')));
    $sound = $asked->numberOrNull('sound');
    $track = $sound === null ? $asked->number('track') : ($source->sound()[$sound - 1]->number ?? 0);
    foreach (Excerpt::decode($source, $track, $asked->number('from'), $asked->number('count')) as $samples) {
        if (@fwrite(STDOUT, $samples) === false) {
            exit(0);
        }
    }
} catch (Throwable $trouble) {
    fwrite(STDERR, $trouble."\n");
    exit(1);
}
