<?php

declare(strict_types=1);

// Writes docs/formats.md anew: php -d ffi.enable=1 bin/formats.php
require __DIR__.'/../core/bin/autoload.php';

file_put_contents(__DIR__.'/../docs/formats.md', Octavox\Core\Reading\FormatTable::markdown());
