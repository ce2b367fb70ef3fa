<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/**
 * Bytes that stand together in a source and are not read before somebody looks at them: what is only copied need not pass through memory.
 */
final readonly class Stretch
{
    /** Bytes that are read at once by whoever goes through them piece by piece. */
    private const PIECE = 1_048_576;

    private function __construct(public ByteSource $source, public int $offset, public int $length) {}

    /** @throws BytesMissing where the source ends before them */
    public static function in(ByteSource $source, int $offset, int $length): self
    {
        if ($offset < 0 || $length < 0 || $offset > $source->size() - $length) {
            throw BytesMissing::at($source->name(), $offset, $length, $source->size());
        }

        return new self($source, $offset, $length);
    }

    public static function of(string $bytes): self
    {
        return new self(new MemoryBytes($bytes, 'bytes'), 0, strlen($bytes));
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function bytes(): string
    {
        return $this->source->read($this->offset, $this->length);
    }

    /**
     * @return iterable<string> all of them, a piece at a time
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function pieces(): iterable
    {
        for ($at = 0; $at < $this->length; $at += self::PIECE) {
            yield $this->source->read($this->offset + $at, min(self::PIECE, $this->length - $at));
        }
    }

    /** Without the first ones. */
    public function after(int $count): self
    {
        return new self($this->source, $this->offset + $count, $this->length - $count);
    }

    /** Together with those that follow it; null where they stand elsewhere. */
    public function joined(self $next): ?self
    {
        return $next->source === $this->source && $next->offset === $this->offset + $this->length
            ? new self($this->source, $this->offset, $this->length + $next->length) : null;
    }
}
