<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/** Collects bytes in memory: for small parts and for tests. */
final class MemorySink implements ByteSink
{
    private string $bytes = '';

    public function position(): int
    {
        return strlen($this->bytes);
    }

    public function write(string $bytes): void
    {
        $this->bytes .= $bytes;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function copy(Stretch $stretch): void
    {
        $this->bytes .= $stretch->bytes();
    }

    public function reserve(int $bytes): void
    {
        $this->bytes .= str_repeat("\0", max(0, $bytes));
    }

    public function needsNoChecksum(): void {}

    public function replace(int $offset, string $bytes): void
    {
        if ($offset < 0 || $offset + strlen($bytes) > strlen($this->bytes)) {
            throw new \LogicException('Only bytes that were written can be replaced.');
        }
        $this->bytes = substr_replace($this->bytes, $bytes, $offset, strlen($bytes));
    }

    public function bytes(): string
    {
        return $this->bytes;
    }
}
