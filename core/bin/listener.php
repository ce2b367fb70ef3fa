<?php

declare(strict_types=1);

// Decodes packets that come on the standard input while they are being made, and says in JSON what they decode to.

use Octavox\Core\Make\Listener;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

try {
    fwrite(STDOUT, json_encode(Listener::listen(STDIN), JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION));
} catch (Throwable $trouble) {
    // Whoever began this decodes for itself then, and meets the same trouble where it can be told.
    fwrite(STDERR, $trouble->getMessage());
    exit(1);
}
