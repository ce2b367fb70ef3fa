<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\FrameInfo;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;

/** An opened file that is frames one after another, and nothing that tells how many. */
final class FrameFile extends OneTrack
{
    private const SPAN = 262_144;

    /**
     * @param  int  $from  where the first frame begins
     */
    private function __construct(OpenedBytes $file, Track $track, private readonly FrameParser $framing,
        private readonly int $from, private readonly int $end)
    {
        parent::__construct($file->container, $file->bytes, $track, $file->tags, $file->diagnostics);
    }

    /**
     * Counts the frames, so that the length is exact.
     *
     * @throws BrokenStructure where there is no frame
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function count(OpenedBytes $file, FrameParser $framing, int $from, int $end): self
    {
        $window = new Window($file->bytes, $end, self::SPAN);
        $samples = 0;
        $coded = 0;
        $audio = null;
        $gaps = new SkippedBytes($from);
        foreach (self::walk($window, $framing, $from, $end) as [$at, $facts]) {
            $gaps->frame($at, $facts->bytes);
            $audio ??= $framing->audio($window->read($at, $facts->bytes));
            $samples += $facts->samples;
            $coded += $facts->bytes;
        }
        if ($audio === null) {
            throw BrokenStructure::at($file->bytes->name(), $from, 'no whole frame of sound is in it');
        }

        return new self($file->with($gaps->diagnostics($end)), Track::sound(1, $audio, Timeline::plain($samples), $coded), $framing,
            $from, $end);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        $window = new Window($this->bytes, $this->end, self::SPAN);
        $sound = $this->track->sound;
        $factor = $sound === null || $track->sound === null ? 1 : max(1, intdiv($track->sound->rate, max(1, $sound->rate)));
        $preroll = CodecModules::preroll($track) * ($track->sound->frameLength ?? 0);
        $start = 0;
        foreach (self::walk($window, $this->framing, $this->from, $this->end) as [$at, $facts]) {
            $length = $facts->samples * $factor;
            if ($start >= $until + $length) {
                return;
            }
            if ($start + $length > $from - $preroll) {
                yield new Packet($this->framing->payload($window->read($at, $facts->bytes)), $start, $length);
            }
            $start += $length;
        }
    }

    /**
     * Goes from frame to frame; where something else stands between, looks for the next that fits.
     *
     * @return iterable<array{int, FrameInfo}>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function walk(Window $window, FrameParser $framing, int $at, int $end): iterable
    {
        $identity = null;
        $head = $framing->headBytes();
        $first = $framing->firstByte();
        while ($at + $head <= $end) {
            $facts = $framing->at($window->read($at, min($end - $at, $head)));
            if ($facts !== null && $at + $facts->bytes <= $end && ($identity === null || $identity === $facts->identity)) {
                $identity ??= $facts->identity;
                yield [$at, $facts];
                $at += $facts->bytes;

                continue;
            }
            if ($first === '') {
                return;
            }
            $at++;
            while ($at < $end) {
                $length = min(4096, $end - $at);
                $place = strpos($window->read($at, $length), $first);
                if ($place !== false) {
                    $at += $place;
                    break;
                }
                $at += $length;
            }
        }
    }

    /**
     * Where frames begin to follow each other; null where they do nowhere near.
     *
     * @param  int  $reach  bytes within which it is looked for
     * @param  int  $frames  that must agree
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function search(ByteSource $bytes, FrameParser $framing, int $at, int $reach, int $frames): ?int
    {
        $window = new Window($bytes, $bytes->size(), self::SPAN);
        $span = $bytes->read($at, max(0, min($reach, $bytes->size() - $at)));
        $first = $framing->firstByte();
        for ($place = 0; $first !== '' && $place < strlen($span); $place++) {
            $place = strpos($span, $first, $place);
            if ($place === false) {
                break;
            }
            $next = $at + $place;
            $identity = null;
            for ($found = 0; $found < $frames && $next + $framing->headBytes() <= $bytes->size(); $found++) {
                $facts = $framing->at($window->read($next, $framing->headBytes()));
                if ($facts === null || $identity !== null && $facts->identity !== $identity) {
                    break;
                }
                $identity = $facts->identity;
                $next += $facts->bytes;
            }
            if ($found === $frames) {
                return $at + $place;
            }
        }

        return null;
    }

    /**
     * Whether two frames of the same stream follow each other there, or one that ends with the bytes.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function begins(ByteSource $bytes, FrameParser $framing, int $at): bool
    {
        $head = $framing->headBytes();
        $size = $bytes->size();
        if ($at + $head > $size) {
            return false;
        }
        $facts = $framing->at($bytes->read($at, $head));
        if ($facts === null || $at + $facts->bytes > $size) {
            return false;
        }
        $next = $at + $facts->bytes;
        if ($next === $size) {
            return true;
        }
        $following = $next + $head <= $size ? $framing->at($bytes->read($next, $head)) : null;

        return $following !== null && $following->identity === $facts->identity;
    }
}
