<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegAudio;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Tag\Id3v2;

/** Bare MPEG audio frames (MP3, MP2, MP1), with ID3 tags around and an info header in the first frame. */
final class MpegAudioFormat implements Format
{
    /** Places at which a stream of free format is looked for; each takes a search. */
    private const MOST_TRIALS = 16;

    /** Frames that must agree where a file begins with one, or a tag stands before. */
    private const AT_BEGIN = 3;

    /** Frames that must agree where something else stands before the first. */
    private const WITHIN = 6;

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return self::firstFrame($bytes) !== null;
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new MpegAudioReader($bytes, self::firstFrame($bytes) ?? 0))->read();
    }

    /**
     * Where the first of several frames stands that follow each other; looked for in the first 64 KiB after a tag. At the very begin a
     * few must agree, further on more: any bytes hold something that looks like a frame.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function firstFrame(ByteSource $bytes): ?int
    {
        if ($bytes->size() < 24) {
            return null;
        }
        $start = Id3v2::end($bytes);
        $span = $bytes->read($start, min($start > 0 ? 65536 : 8192, $bytes->size() - $start));
        $at = 0;
        $trials = 0;
        while (($at = strpos($span, "\xFF", $at)) !== false && $at + 4 <= strlen($span)) {
            $header = FrameHeader::parse(substr($span, $at, 4));
            if ($header !== null && $header->bytes >= 24) {
                if (self::goesOn($bytes, $start + $at, $header, $at === 0 || $start > 0 ? self::AT_BEGIN : self::WITHIN)) {
                    return $start + $at;
                }
            } elseif ($trials < self::MOST_TRIALS && FrameHeader::free(substr($span, $at, 4), 0) !== null) {
                $trials++;
                if (FreeFormat::frameBytes($bytes, $start + $at) > 0) {
                    return $start + $at;
                }
            }
            $at++;
        }

        return null;
    }

    /**
     * Whether so many frames of one stream stand there, or fewer up to the end of the sound.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function goesOn(ByteSource $bytes, int $at, FrameHeader $first, int $wanted): bool
    {
        $end = $bytes->size();
        $header = $first;
        for ($frames = 1; $frames < $wanted; $frames++) {
            $at += $header->bytes;
            if ($at + 4 > $end) {
                // A file that ends in the midst of a frame or with one, or what is left is shorter than a header.
                return $wanted === self::AT_BEGIN || $frames > 1;
            }
            $head = $bytes->read($at, 4);
            $next = FrameHeader::parse($head);
            if ($next === null && $frames === 1 && FrameHeader::free($head, 0)?->continues($first) === true) {
                // After an info frame with a stated bit rate, the sound can be of free format.
                return FreeFormat::frameBytes($bytes, $at) > 0;
            }
            if ($next === null || ! $next->continues($first)) {
                // A tag at the end.
                return $wanted === self::AT_BEGIN && (str_starts_with($head, 'TAG') || $head === 'APET' || $head === 'LYRI');
            }
            $header = $next;
        }

        return true;
    }
}
