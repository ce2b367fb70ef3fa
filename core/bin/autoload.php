<?php

declare(strict_types=1);

// The core's own dependencies, or those of the application it stands in.

foreach ([__DIR__.'/../vendor/autoload.php', __DIR__.'/../../vendor/autoload.php'] as $autoload) {
    if (is_file($autoload)) {
        require $autoload;

        return;
    }
}
fwrite(STDERR, "Octavox is not set up yet; run ./octavox demo or ./octavox test first.\n");
exit(1);
