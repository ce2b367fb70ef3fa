<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

use Octavox\Core\Bytes\Native\Copying;
use Octavox\Core\Bytes\Native\Writeback;

/** Writes a new file and holds an exclusive lock on it until it is closed. */
final class FileSink implements ByteSink
{
    /** Bytes below which reading and writing takes less time than asking the system to copy, and after which it is asked. */
    private const WORTH_COPYING = 32_768;

    private const COPIED_TOGETHER = 8_388_608;

    private int $position = 0;

    /** @var list<string> what is not written yet; joined once, because a long string that grows is copied again and again */
    private array $pending = [];

    private int $pendingBytes = 0;

    /** What is to be copied next; nothing else is pending then. */
    private ?Stretch $stretch = null;

    private ?Copying $copying = null;

    private readonly \HashContext $hash;

    private readonly Writeback $writeback;

    private bool $summed = true;

    /** @param  resource  $handle */
    private function __construct(public readonly string $path, private $handle)
    {
        $this->writeback = new Writeback($path);
        $this->hash = hash_init('xxh128');
    }

    /**
     * The file must not exist yet.
     *
     * @throws FileUnwritable
     */
    public static function create(string $path): self
    {
        $handle = is_dir(dirname($path)) ? @fopen($path, 'x+b') : false;
        if ($handle === false) {
            throw FileUnwritable::create($path);
        }
        flock($handle, LOCK_EX | LOCK_NB);
        stream_set_write_buffer($handle, 0);

        return new self($path, $handle);
    }

    /**
     * A file that is there already and whose bytes are only replaced.
     *
     * @throws FileUnwritable
     */
    public static function within(string $path): self
    {
        $handle = is_file($path) ? @fopen($path, 'r+b') : false;
        if ($handle === false) {
            throw FileUnwritable::create($path);
        }
        stream_set_write_buffer($handle, 0);
        $sink = new self($path, $handle);
        $sink->position = (int) filesize($path);

        return $sink;
    }

    /**
     * A file that is there already and that somebody else is writing too: from that place on, which may be beyond its end yet.
     *
     * @throws FileUnwritable
     */
    public static function from(string $path, int $offset): self
    {
        $handle = is_file($path) ? @fopen($path, 'r+b') : false;
        if ($handle === false || fseek($handle, $offset) !== 0) {
            throw FileUnwritable::create($path);
        }
        stream_set_write_buffer($handle, 0);
        $sink = new self($path, $handle);
        $sink->position = $offset;
        $sink->summed = false;

        return $sink;
    }

    public function position(): int
    {
        return $this->position;
    }

    public function write(string $bytes): void
    {
        if ($this->stretch !== null) {
            $this->copyPending();
        }
        $this->position += strlen($bytes);
        if ($this->summed) {
            hash_update($this->hash, $bytes);
        }
        // What is long is not copied once more only to be written together with more.
        if (strlen($bytes) >= 32768) {
            $this->drain();
            $this->put($bytes);
            $this->writeback->reached($this->position);

            return;
        }
        $this->pending[] = $bytes;
        $this->pendingBytes += strlen($bytes);
        if ($this->pendingBytes >= 262144) {
            $this->drain();
        }
    }

    public function copy(Stretch $stretch): void
    {
        // What is summed must be looked at.
        if ($this->summed || ! $stretch->source instanceof FileBytes) {
            foreach ($stretch->pieces() as $bytes) {
                $this->write($bytes);
            }

            return;
        }
        if ($stretch->source->name() === $this->path && $stretch->offset === $this->position) {
            // Another process has put them here already.
            $this->drain();
            $this->position += $stretch->length;
            fseek($this->handle, $this->position);

            return;
        }
        $joined = $this->stretch?->joined($stretch);
        if ($joined === null && $this->stretch !== null) {
            $this->copyPending();
        }
        $this->stretch = $joined ?? $stretch;
        $this->position += $stretch->length;
        if ($this->stretch->length >= self::COPIED_TOGETHER) {
            $this->copyPending();
        }
    }

    public function needsNoChecksum(): void
    {
        $this->summed = false;
    }

    public function replace(int $offset, string $bytes): void
    {
        if ($offset < 0 || $offset + strlen($bytes) > $this->position) {
            throw new \LogicException('Only bytes that were written can be replaced.');
        }
        $this->summed = false;
        $this->drain();
        fseek($this->handle, $offset);
        $this->put($bytes);
        fseek($this->handle, 0, SEEK_END);
    }

    /** Whoever opens the file now finds all of it, and the system is writing it to the disk. */
    public function settle(): void
    {
        $this->drain();
        $this->writeback->begin($this->position);
    }

    /**
     * Everything is on the disk, not only in memory, when this returns.
     *
     * @throws FileUnwritable
     */
    public function flush(): void
    {
        $this->drain();
        if (! fflush($this->handle) || ! @fsync($this->handle)) {
            throw FileUnwritable::full($this->path, $this->position);
        }
    }

    /** XXH128, hexadecimal, of everything that was written in order; null where something was replaced since or none was needed. */
    public function checksum(): ?string
    {
        return $this->summed ? hash_final(hash_copy($this->hash)) : null;
    }

    public function close(): void
    {
        $this->drain();
        fclose($this->handle);
    }

    private function copyPending(): void
    {
        $stretch = $this->stretch;
        $this->stretch = null;
        if ($stretch === null) {
            return;
        }
        $this->position -= $stretch->length;
        if ($stretch->length < self::WORTH_COPYING) {
            $this->write($stretch->bytes());

            return;
        }
        $this->drain();
        $this->copying ??= new Copying($this->path);
        $done = $this->copying->copy($stretch->source->name(), $stretch->offset, $this->position, $stretch->length);
        fseek($this->handle, $this->position + $done);
        foreach ($stretch->after($done)->pieces() as $bytes) {
            $this->put($bytes);
        }
        $this->position += $stretch->length;
        $this->writeback->reached($this->position);
    }

    private function drain(): void
    {
        if ($this->stretch !== null) {
            $this->copyPending();
        }
        if ($this->pendingBytes > 0) {
            $bytes = implode('', $this->pending);
            $this->pending = [];
            $this->pendingBytes = 0;
            $this->put($bytes);
            $this->writeback->reached($this->position);
        }
    }

    private function put(string $bytes): void
    {
        $written = @fwrite($this->handle, $bytes);
        if ($written !== strlen($bytes)) {
            throw FileUnwritable::full($this->path, $this->position);
        }
    }
}
