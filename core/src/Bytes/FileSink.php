<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

use Octavox\Core\Bytes\Native\Gathering;
use Octavox\Core\Bytes\Native\Writeback;

/** Writes a new file and holds an exclusive lock on it until it is closed. */
final class FileSink implements ByteSink
{
    /** Bytes of strings, and of all, that are written at once. */
    private const STRINGS_TOGETHER = 262_144;

    private const TOGETHER = 8_388_608;

    /** A string or a stretch that is longer is not copied once more only to be written together with more. */
    private const LONG = 32_768;

    private int $position = 0;

    /** @var list<string|Stretch> what is not written yet; joined once, because a long string that grows is copied again and again */
    private array $pending = [];

    private int $pendingBytes = 0;

    private int $stringBytes = 0;

    private ?Gathering $gathering = null;

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
        return self::from($path, is_file($path) ? (int) filesize($path) : 0);
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

    /**
     * @throws BytesMissing
     * @throws FileUnwritable
     * @throws FileUnreadable
     */
    public function write(string $bytes): void
    {
        $this->position += strlen($bytes);
        if ($this->summed) {
            hash_update($this->hash, $bytes);
        }
        if (strlen($bytes) >= self::LONG) {
            $this->drain(strlen($bytes));
            $this->put($bytes);
            $this->writeback->reached($this->position);

            return;
        }
        $this->add($bytes, strlen($bytes));
        $this->stringBytes += strlen($bytes);
        if ($this->stringBytes >= self::STRINGS_TOGETHER - self::LONG) {
            $this->drain();
        }
    }

    /**
     * @throws BytesMissing
     * @throws FileUnwritable
     * @throws FileUnreadable
     */
    public function copy(Stretch $stretch): void
    {
        if ($stretch->source->name() === $this->path && $stretch->offset === $this->position) {
            // Another process has put them here already.
            $this->drain();
            $this->position += $stretch->length;
            fseek($this->handle, $this->position);

            return;
        }
        // What is summed must be looked at.
        if ($this->summed || ! $stretch->source instanceof FileBytes) {
            foreach ($stretch->pieces() as $bytes) {
                $this->write($bytes);
            }

            return;
        }
        $last = array_key_last($this->pending);
        $joined = $last !== null && $this->pending[$last] instanceof Stretch ? $this->pending[$last]->joined($stretch) : null;
        $this->position += $stretch->length;
        if ($joined !== null) {
            $this->pending[$last] = $joined;
            $this->pendingBytes += $stretch->length;
        } else {
            $this->add($stretch, $stretch->length);
        }
        if ($this->pendingBytes >= self::TOGETHER) {
            $this->drain();
        }
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function reserve(int $bytes): void
    {
        $this->summed = false;
        $this->drain();
        if (! @ftruncate($this->handle, max(0, $this->position + $bytes))) {
            throw FileUnwritable::full($this->path, $this->position);
        }
        $this->position += $bytes;
        fseek($this->handle, $this->position);
    }

    public function needsNoChecksum(): void
    {
        $this->summed = false;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnwritable
     * @throws FileUnreadable
     */
    public function replace(int $offset, string $bytes): void
    {
        if ($offset < 0 || $offset + strlen($bytes) > $this->position) {
            throw new \LogicException('Only bytes that were written can be replaced.');
        }
        $this->summed = false;
        $this->drain();
        fseek($this->handle, $offset);
        $this->put($bytes);
        fseek($this->handle, $this->position);
    }

    /**
     * Whoever opens the file now finds all of it, and the system is writing it to the disk.
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function startWriteback(): void
    {
        $this->drain();
        // Somebody else may have written here more than was taken.
        if ((fstat($this->handle)['size'] ?? 0) > $this->position) {
            ftruncate($this->handle, max(0, $this->position));
        }
        $this->writeback->begin($this->position);
    }

    /**
     * Everything is on the disk, not only in memory, when this returns.
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
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

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function close(): void
    {
        $this->drain();
        fclose($this->handle);
    }

    private function add(string|Stretch $part, int $bytes): void
    {
        if ($bytes > 0) {
            $this->pending[] = $part;
            $this->pendingBytes += $bytes;
        }
    }

    /**
     * @param  int  $beyond  bytes that are counted already but come after what is pending
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function drain(int $beyond = 0): void
    {
        if ($this->pendingBytes === 0) {
            return;
        }
        $parts = $this->pending;
        $at = $this->position - $beyond - $this->pendingBytes;
        [$this->pending, $this->pendingBytes, $this->stringBytes] = [[], 0, 0];
        $strings = array_filter($parts, is_string(...));
        if (count($strings) === count($parts)) {
            $this->put(implode('', $strings));
        } else {
            $this->gather($parts, $at);
        }
        $this->writeback->reached($this->position - $beyond);
    }

    /**
     * @param  list<string|Stretch>  $parts
     *
     * @throws BytesMissing
     * @throws FileUnwritable
     * @throws FileUnreadable
     */
    private function gather(array $parts, int $at): void
    {
        $this->gathering ??= new Gathering($this->path, self::STRINGS_TOGETHER);
        $done = $this->gathering->write($parts, $at);
        fseek($this->handle, $at + $done);
        foreach ($parts as $part) {
            $bytes = $part instanceof Stretch ? $part->length : strlen($part);
            if ($done < $bytes) {
                foreach (($part instanceof Stretch ? $part : Stretch::of($part))->after($done)->pieces() as $piece) {
                    $this->put($piece);
                }
            }
            $done = max(0, $done - $bytes);
        }
    }

    /** @throws FileUnwritable */
    private function put(string $bytes): void
    {
        $written = @fwrite($this->handle, $bytes);
        if ($written !== strlen($bytes)) {
            throw FileUnwritable::full($this->path, $this->position);
        }
    }
}
