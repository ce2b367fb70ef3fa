<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/** The bytes of a regular file; reads exactly what is asked, without read-ahead of its own. */
final class FileBytes implements ByteSource
{
    private int $fetched = 0;

    private int $process;

    /** @param  resource  $handle */
    private function __construct(private readonly string $path, private $handle, private readonly int $size)
    {
        $this->process = (int) getmypid();
    }

    /** @throws FileUnreadable */
    public static function open(string $path): self
    {
        if (str_contains($path, "\0")) {
            throw FileUnreadable::missing(str_replace("\0", '?', $path));
        }
        if (is_dir($path)) {
            throw FileUnreadable::folder($path);
        }
        if (file_exists($path) && ! is_file($path)) {
            throw FileUnreadable::special($path);
        }
        if (! is_file($path)) {
            throw FileUnreadable::missing($path);
        }
        $handle = @fopen($path, 'rb');
        if ($handle === false) {
            throw FileUnreadable::denied($path);
        }
        if (! Fence::holds($path, $handle)) {
            throw FileUnreadable::outside($path);
        }
        stream_set_read_buffer($handle, 0);
        $facts = fstat($handle);

        return new self($path, $handle, $facts === false ? 0 : $facts['size']);
    }

    public function name(): string
    {
        return $this->path;
    }

    public function size(): int
    {
        return $this->size;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function read(int $offset, int $length): string
    {
        if ($length === 0) {
            return '';
        }
        if ($offset < 0 || $length < 0 || $offset > $this->size - $length) {
            throw BytesMissing::at($this->path, $offset, $length, $this->size);
        }
        if (getmypid() !== $this->process) {
            $this->reopen();
        }
        if (fseek($this->handle, $offset) !== 0) {
            throw FileUnreadable::failed($this->path, $offset);
        }
        $bytes = '';
        do {
            $part = @fread($this->handle, max(1, $length - strlen($bytes)));
            if ($part === false || $part === '') {
                throw FileUnreadable::failed($this->path, $offset + strlen($bytes));
            }
            $bytes = $bytes === '' ? $part : $bytes.$part;
        } while (strlen($bytes) < $length);
        $this->fetched += $length;

        return $bytes;
    }

    public function bytesRead(): int
    {
        return $this->fetched;
    }

    /**
     * A process that was forked since would share the place at which is read with the one before it.
     *
     * @throws FileUnreadable
     */
    private function reopen(): void
    {
        $own = self::open($this->path);
        if ($own->size !== $this->size) {
            throw FileUnreadable::failed($this->path, 0);
        }
        $this->handle = $own->handle;
        $this->process = $own->process;
    }
}
