<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flac;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\Flac\FrameHeader;
use Octavox\Core\Codec\Flac\StreamInfo;
use Octavox\Core\Codec\Packet;
use Octavox\Core\Container\BrokenStructure;

/** The frames of a FLAC file. None tells its length: the next one that fits shows where it ends. */
final class FlacFrames
{
    /** Two bytes that begin every frame: fixed or variable block size (RFC 9639, 9.1). */
    private const SYNC = '/\xFF[\xF8\xF9]/';

    private const HEADER = FrameHeader::MOST_BYTES;

    /** Of a tag that some writers put after the sound (ID3v1), which begins with three letters. */
    private const TAG_BYTES = 128;

    private const SPAN = 262_144;

    private const SHORT = 4096;

    /** Bytes in which the end of the next frame is looked for first. */
    private int $usual = self::SHORT;

    /** Where the sound ends. */
    private readonly int $size;

    public function __construct(private readonly ByteSource $bytes, private readonly int $from, private readonly StreamInfo $info)
    {
        $size = $bytes->size();
        $this->size = $size > $from + self::TAG_BYTES && $bytes->read($size - self::TAG_BYTES, 3) === 'TAG' ? $size - self::TAG_BYTES : $size;
    }

    /** All of them: where one ends the next begins. */
    public function stretch(): Stretch
    {
        return Stretch::in($this->bytes, $this->from, $this->size - $this->from);
    }

    /** Number of samples up to the end of the last frame. */
    public function end(): int
    {
        $size = $this->size;
        for ($span = 65_536; ; $span *= 4) {
            $at = max($this->from, $size - $span);
            $bytes = $this->bytes->read($at, $size - $at);
            $last = null;
            foreach ($this->candidates($bytes) as [, $header]) {
                $start = $this->start($header);
                if ($last === null || $start > $this->start($last) && $start - $this->start($last) <= 65_536) {
                    $last = $header;
                }
            }
            if ($last !== null) {
                return $this->start($last) + $last->samples;
            }
            if ($at === $this->from) {
                return 0;
            }
        }
    }

    /**
     * The frames that hold the samples from $from up to $until.
     *
     * @return iterable<Packet>
     *
     * @throws BrokenStructure where no frame follows
     */
    public function between(int $from, int $until): iterable
    {
        $window = new Window($this->bytes, $this->size, self::SPAN);
        $at = $from > 4 * $this->info->largestBlock ? $this->near($from) : $this->from;
        $header = $this->header($window, $at);
        while ($header !== null && $this->start($header) < $until) {
            [$next, $following] = $this->next($window, $at, $header);
            $start = $this->start($header);
            if ($start + $header->samples > $from) {
                yield new Packet($window->read($at, $next - $at), $start, $header->samples);
            }
            $at = $next;
            $header = $following;
        }
    }

    /** Place of a frame that begins at or before the sample, by halving the file. */
    private function near(int $sample): int
    {
        $low = $this->from;
        $high = $this->size;
        while ($high - $low > self::SPAN) {
            $middle = intdiv($low + $high, 2);
            $found = null;
            foreach ($this->candidates($this->bytes->read($middle, min(self::SPAN, $high - $middle))) as [$place, $header]) {
                $found = [$middle + $place, $header];
                break;
            }
            if ($found === null || $this->start($found[1]) > $sample) {
                $high = $middle;
            } else {
                $low = $found[0];
            }
        }

        return $low;
    }

    /** @return iterable<array{int, FrameHeader}> */
    private function candidates(string $bytes): iterable
    {
        $at = 0;
        while (preg_match(self::SYNC, $bytes, $match, PREG_OFFSET_CAPTURE, $at) === 1) {
            $at = $match[0][1];
            $header = FrameHeader::parse(substr($bytes, $at, self::HEADER));
            if ($header !== null && $this->fits($header)) {
                yield [$at, $header];
            }
            $at++;
        }
    }

    /** @return array{int, ?FrameHeader} where the next frame begins, or the end of the file and null */
    private function next(Window $window, int $at, FrameHeader $header): array
    {
        $wanted = $this->start($header) + $header->samples;
        $size = $this->size;
        // The next frame is about as long; only where it is not, more is read.
        $span = $this->usual;
        // The shortest frame has a header, one byte a channel and a sum.
        for ($place = $at + 8; $place < $size; $place += $span - self::HEADER, $span = self::SPAN) {
            $bytes = $window->read($place, min($span, $size - $place));
            foreach ($this->candidates($bytes) as [$offset, $candidate]) {
                if ($this->start($candidate) === $wanted) {
                    $this->usual = max(self::SHORT, 2 * ($place + $offset - $at));

                    return [$place + $offset, $candidate];
                }
            }
        }

        return [$size, null];
    }

    private function header(Window $window, int $at): ?FrameHeader
    {
        $size = $this->size;
        if ($at + 8 > $size) {
            return null;
        }

        return FrameHeader::parse($window->read($at, min(self::HEADER, $size - $at)))
            ?? throw BrokenStructure::at($this->bytes->name(), $at, 'no frame of sound stands where one belongs');
    }

    private function fits(FrameHeader $header): bool
    {
        return $header->channels === $this->info->channels && $header->samples <= $this->info->largestBlock;
    }

    /** First sample of a frame: RFC 9639, 9.1.5. */
    private function start(FrameHeader $header): int
    {
        return $header->countsSamples ? $header->number : $header->number * $this->info->largestBlock;
    }
}
