<?php

declare(strict_types=1);

// The heart needs no package to run; its classes are found by their names (PSR-4).

spl_autoload_register(static function (string $class): void {
    foreach (['Octavox\\Core\\Testing\\' => '/../testing/', 'Octavox\\Core\\' => '/../src/'] as $prefix => $folder) {
        $path = __DIR__.$folder.strtr(substr($class, strlen($prefix)), '\\', '/').'.php';
        if (str_starts_with($class, $prefix) && is_file($path)) {
            require $path;
        }
    }
});
