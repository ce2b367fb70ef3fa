<?php

declare(strict_types=1);

// The heart and its commands need no package to run; their classes are found by their names (PSR-4).

spl_autoload_register(static function (string $class): void {
    foreach (['Octavox\\Core\\' => '/../src/', 'Octavox\\Cli\\' => '/../../cli/src/'] as $prefix => $folder) {
        $path = __DIR__.$folder.strtr(substr($class, strlen($prefix)), '\\', '/').'.php';
        if (str_starts_with($class, $prefix) && is_file($path)) {
            require $path;
        }
    }
});
