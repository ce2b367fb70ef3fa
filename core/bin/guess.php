<?php

declare(strict_types=1);

// Guesses what a file without a header holds: JSON {path} on the standard input; answers with {guesses: [pcm16:48000:2, …]},
// the likeliest first.

use Octavox\Core\Analysis\HeaderlessGuess;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Json\Fields;
use Octavox\Core\Parallel\ChildScript;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

exit(ChildScript::run(fn (Fields $asked): array => ['guesses' => array_map(strval(...),
    HeaderlessGuess::guess(FileBytes::open($asked->text('path'))))]));
