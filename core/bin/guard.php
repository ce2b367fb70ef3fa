<?php

declare(strict_types=1);

// What every process shares that works on files nobody has vouched for: a limit of memory, no core dumps, warnings are failures.

// Native memory is beyond PHP's own limit; this one ends a process that a hostile file drives astray.
posix_setrlimit(POSIX_RLIMIT_AS, 3 << 30, 3 << 30);
posix_setrlimit(POSIX_RLIMIT_CORE, 0, 0);
set_error_handler(function (int $level, string $message): bool {
    if ((error_reporting() & $level) === 0) {
        return false;
    }
    throw new ErrorException($message, 0, $level);
});
