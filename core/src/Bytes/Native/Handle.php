<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes\Native;

/** An open file as the system knows it. */
final class Handle
{
    /** fcntl.h: O_RDONLY | O_CLOEXEC, O_WRONLY | O_CLOEXEC */
    public const READING = 0x80000;

    public const WRITING = 0x80001;

    private function __construct(public readonly int $number) {}

    public function __destruct()
    {
        System::calls()?->close($this->number);
    }

    /** Null where it cannot be. */
    public static function open(string $path, int $flags): ?self
    {
        $number = (int) (System::calls()?->open($path, $flags) ?? -1);

        return $number < 0 ? null : new self($number);
    }
}
