<?php

declare(strict_types=1);

return [
    'default' => env('CACHE_STORE', 'file'),
    'stores' => [
        'array' => ['driver' => 'array', 'serialize' => false],
        'file' => ['driver' => 'kept', 'path' => (env('OCTAVOX_HOME') ?: storage_path('app/octavox')).'/cache'],
    ],
    'prefix' => 'octavox',
];
