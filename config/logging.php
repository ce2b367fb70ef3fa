<?php

declare(strict_types=1);

return [
    'default' => 'kept',
    'channels' => [
        // What cannot be written down, on a full drive, is no further fault.
        'kept' => ['driver' => 'stack', 'channels' => ['daily'], 'ignore_exceptions' => true],
        'daily' => ['driver' => 'daily', 'days' => 14, 'path' => (env('OCTAVOX_HOME') ?: storage_path('app/octavox')).'/octavox.log',
            'level' => 'warning'],
        'null' => ['driver' => 'monolog', 'handler' => Monolog\Handler\NullHandler::class],
    ],
];
