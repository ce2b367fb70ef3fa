<?php

declare(strict_types=1);

// For PHP's own web server: files that exist are given as they are, everything else goes to the application.

$path = __DIR__.'/../public'.rawurldecode((string) parse_url((string) $_SERVER['REQUEST_URI'], PHP_URL_PATH));
if (is_file($path) && ! str_ends_with($path, '.php')) {
    return false;
}
require __DIR__.'/../public/index.php';
