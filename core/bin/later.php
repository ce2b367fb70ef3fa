<?php

declare(strict_types=1);

// Makes the later part of one result: JSON {plan, begins, lead, gain, path} on the standard input, what was made as JSON on the output.

use Octavox\Core\Json\Fields;
use Octavox\Core\Make\LaterPart;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

try {
    $wish = json_decode((string) stream_get_contents(STDIN), true, 32, JSON_THROW_ON_ERROR);
    fwrite(STDOUT, json_encode(LaterPart::make(new Fields(is_array($wish) ? $wish : [])), JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION));
} catch (Throwable $trouble) {
    // Whoever began this makes it all alone then, and meets the same trouble where it can be told.
    fwrite(STDERR, $trouble->getMessage());
    exit(1);
}
