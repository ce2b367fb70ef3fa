<?php

declare(strict_types=1);

// The commands that work without the web part: read, make, compare.

use Octavox\Cli\Application;

require __DIR__.'/../core/bin/autoload.php';

exit(Application::run(array_slice($argv, 1)));
