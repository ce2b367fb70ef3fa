<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flac;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\Flac\FrameCrc;
use Octavox\Core\Codec\Flac\FrameHeader;
use Octavox\Core\Codec\Flac\StreamInfo;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Media\Packet;

/** The frames of a FLAC file. None tells its length: the next one that fits shows where it ends. */
final class FlacFrames
{
    /** Two bytes that begin every frame: fixed or variable block size (RFC 9639, 9.1). */
    private const SYNC = '/\xFF[\xF8\xF9]/';

    private const HEADER = FrameHeader::MOST_BYTES;

    /** Of a tag that some writers put after the sound (ID3v1), which begins with three letters. */
    private const TAG_BYTES = 128;

    private const SPAN = 262_144;

    /** Files up to this size are looked through for another recording behind the first. */
    private const LOOKED_THROUGH = 33_554_432;

    /** The marker and the head of the first metadata block: RFC 9639, 8. */
    private const NEXT_FILE = "fLaC\0\0\0\x22";

    private const SHORT = 4096;

    /** What some writers put behind the sound. */
    private const TRAILERS = ['APETAGEX', 'ID3', 'LYRICSBEGIN'];

    /** Zeros behind the last frame that are tried for its end. */
    private const PADDING = 64;

    /** Samples, once they are counted. */
    private int $known = 0;

    /** Bytes in which the end of the next frame is looked for first. */
    private int $usual = self::SHORT;

    /** Where the sound ends. */
    private int $size;

    /** Where another recording begins, if one follows. */
    public readonly ?int $another;

    /** First sample, as the first frame counts: what was cut out of a longer stream does not begin with 0. */
    public readonly int $first;

    /** Samples up to the end of the last whole frame. */
    public readonly int $samples;

    /**
     * @throws BytesMissing
     * @throws BrokenStructure
     * @throws FileUnreadable
     */
    public function __construct(private readonly ByteSource $bytes, private int $from, private readonly StreamInfo $info)
    {
        $size = $bytes->size();
        $this->size = $size > $from + self::TAG_BYTES && $bytes->read($size - self::TAG_BYTES, 3) === 'TAG'
            ? $size - self::TAG_BYTES : $size;
        $this->from = $this->firstFrame();
        $this->another = $this->anotherRecording();
        $this->samples = $this->known = $this->end();
        $header = $this->samples === 0 ? null : $this->header(new Window($bytes, $this->size), $this->from);
        $this->first = $header === null ? 0 : min($this->samples, $this->start($header));
    }

    /**
     * The first frame; bytes before it that belong to nothing are passed over.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function firstFrame(): int
    {
        for ($at = $this->from; $at < $this->size; $at += self::SPAN - self::HEADER) {
            $bytes = $this->bytes->read($at, min(self::SPAN, $this->size - $at));
            foreach ($this->candidates($bytes) as [$place, $header]) {
                // Bytes that only look like the start of a frame have no frame behind them.
                [$next, $following] = $at + $place === $this->from ? [0, null]
                    : $this->next(new Window($this->bytes, $this->size), $at + $place, $header);
                if ($at + $place === $this->from || $following !== null
                    && FrameCrc::isWhole($this->bytes->read($at + $place, $next - $at - $place))) {
                    return $at + $place;
                }
            }
        }

        return $this->from;
    }

    /**
     * Where the marker of another file stands behind the first frame. A long file is looked through only where its last frame is not the
     * one that is announced.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function anotherRecording(): ?int
    {
        if ($this->size - $this->from > self::LOOKED_THROUGH && $this->info->samples > 0 && $this->end() === $this->info->samples) {
            return null;
        }
        $span = self::SPAN + strlen(self::NEXT_FILE);
        for ($at = $this->from; $at < $this->size; $at += self::SPAN) {
            $place = strpos($this->bytes->read($at, min($span, $this->size - $at)), self::NEXT_FILE);
            if ($place !== false) {
                return $this->size = $at + $place;
            }
        }

        return null;
    }

    /**
     * All of them: where one ends the next begins.
     *
     * @throws BytesMissing
     */
    public function stretch(): Stretch
    {
        return Stretch::in($this->bytes, $this->from, $this->size - $this->from);
    }

    /**
     * Number of samples up to the end of the last frame; one whose end is missing is none.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function end(): int
    {
        $size = $this->size;
        for ($span = 65_536; ; $span *= 4) {
            $at = max($this->from, $size - $span);
            $bytes = $this->bytes->read($at, $size - $at);
            $last = $before = null;
            $lastAt = 0;
            foreach ($this->candidates($bytes) as [$place, $header]) {
                $start = $this->start($header);
                if ($last === null || $start > $this->start($last) && $start - $this->start($last) <= 65_536) {
                    [$before, $last, $lastAt] = [$last, $header, $place];
                }
            }
            if ($last !== null && ($before !== null || $at === $this->from)) {
                if ($this->isWhole(substr($bytes, $lastAt))) {
                    return $this->start($last) + $last->samples;
                }
                $this->size = $at + $lastAt;

                return $before === null ? 0 : $this->start($before) + $before->samples;
            }
            if ($at === $this->from) {
                return 0;
            }
        }
    }

    /** Whether the sum at the end of a frame is there and right, be it before bytes of no meaning. */
    private function isWhole(string $frame): bool
    {
        $end = strlen(rtrim($frame, "\0"));
        for ($cut = strlen($frame); $cut >= max(2, $end); $cut--) {
            if (FrameCrc::isWhole(substr($frame, 0, $cut))) {
                return true;
            }
            if (strlen($frame) - $cut > self::PADDING) {
                break;
            }
        }
        foreach (self::TRAILERS as $mark) {
            $at = strrpos($frame, $mark);
            if ($at !== false && FrameCrc::isWhole(substr($frame, 0, $at))) {
                return true;
            }
        }

        return false;
    }

    /**
     * The frames that hold the samples from $from up to $until.
     *
     * @return iterable<Packet>
     *
     * @throws BrokenStructure where no frame follows
     * @throws BytesMissing
     * @throws FileUnreadable
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
            // What frames were there whose begin is not found any more: nobody can decode it, and the time goes on.
            $missing = $following === null ? 0 : $this->start($following) - $start - $header->samples;
            for ($place = $start + $header->samples; $missing > 0 && $place < $until; $missing -= $length, $place += $length) {
                $length = min($missing, $this->info->largestBlock);
                if ($place + $length > $from) {
                    yield new Packet("\0", $place, $length);
                }
            }
            $at = $next;
            $header = $following;
        }
    }

    /**
     * Place of a frame that begins at or before the sample, by halving the file.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
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

    /**
     * @return array{int, ?FrameHeader} where the next frame begins, or the end of the file and null
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function next(Window $window, int $at, FrameHeader $header): array
    {
        $wanted = $this->start($header) + $header->samples;
        $size = $this->size;
        // The next frame is about as long; only where it is not, more is read.
        $span = $this->usual;
        $later = null;
        // The shortest frame has a header, one byte a channel and a sum.
        for ($place = $at + 8; $place < $size; $place += $span - self::HEADER, $span = self::SPAN) {
            $bytes = $window->read($place, min($span, $size - $place));
            foreach ($this->candidates($bytes) as [$offset, $candidate]) {
                if ($this->start($candidate) === $wanted) {
                    $this->usual = max(self::SHORT, 2 * ($place + $offset - $at));

                    return [$place + $offset, $candidate];
                }
                // Where the next one is damaged, a later one that another follows goes on.
                if ($later !== null && $this->start($candidate) === $this->start($later[1]) + $later[1]->samples) {
                    return $later;
                }
                $later = $this->start($candidate) > $wanted && $this->start($candidate) < $this->known
                    ? [$place + $offset, $candidate] : $later;
            }
        }

        return [$size, null];
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
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
