<?php

declare(strict_types=1);

return [
    'driver' => env('SESSION_DRIVER', 'kept'),
    'lifetime' => 60 * 24 * 7,
    'expire_on_close' => false,
    'encrypt' => false,
    'files' => (env('OCTAVOX_HOME') ?: storage_path('app/octavox')).'/sessions',
    'lottery' => [2, 100],
    // Servers on other ports of this machine are sent the same cookies.
    'cookie' => 'octavox'.(env('OCTAVOX_PORT') === null ? '' : '-'.env('OCTAVOX_PORT')),
    'path' => '/',
    'domain' => null,
    'secure' => false,
    'http_only' => true,
    'same_site' => 'strict',
];
