<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/** Bytes that are in memory already, such as the payload of a small table. */
final class MemoryBytes implements ByteSource
{
    private int $fetched = 0;

    public function __construct(private readonly string $bytes, private readonly string $name = 'memory') {}

    public function name(): string
    {
        return $this->name;
    }

    public function size(): int
    {
        return strlen($this->bytes);
    }

    /**
     * @throws BytesMissing
     */
    public function read(int $offset, int $length): string
    {
        if ($offset < 0 || $length < 0 || $offset > strlen($this->bytes) - $length) {
            throw BytesMissing::at($this->name, $offset, $length, strlen($this->bytes));
        }
        $this->fetched += $length;

        return substr($this->bytes, $offset, $length);
    }

    public function bytesRead(): int
    {
        return $this->fetched;
    }
}
