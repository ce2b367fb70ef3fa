<?php

declare(strict_types=1);

return [
    'default' => 'sqlite',
    'connections' => [
        'sqlite' => [
            'driver' => 'sqlite',
            'database' => env('DB_DATABASE') ?: (env('OCTAVOX_HOME') ?: storage_path('app/octavox')).'/octavox.sqlite',
            'prefix' => '',
            'foreign_key_constraints' => true,
            // Milliseconds to wait while another process writes.
            'busy_timeout' => 10000,
            'journal_mode' => 'WAL',
            'synchronous' => 'NORMAL',
        ],
    ],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => false],
];
