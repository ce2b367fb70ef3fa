<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegAudio;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\Media;
use Octavox\Core\Tag\Id3v2;

/** Bare MPEG audio frames (MP3, MP2, MP1), with ID3 tags around and an info header in the first frame. */
final class MpegAudioFormat implements Format
{
    /** Places at which a stream of free format is looked for; each takes a search. */
    private const MOST_TRIALS = 16;

    public function recognises(ByteSource $bytes): bool
    {
        return self::firstFrame($bytes) !== null;
    }

    public function open(ByteSource $bytes): Media
    {
        return (new MpegAudioReader($bytes, self::firstFrame($bytes) ?? 0))->read();
    }

    /** Where the first of at least two frames that follow each other stands; looked for in the first 64 KiB after a tag. */
    private static function firstFrame(ByteSource $bytes): ?int
    {
        if ($bytes->size() < 24) {
            return null;
        }
        $tag = Id3v2::length($bytes->read(0, 10));
        $start = min($tag, $bytes->size());
        $span = $bytes->read($start, min($tag > 0 ? 65536 : 8192, $bytes->size() - $start));
        $at = 0;
        $trials = 0;
        while (($at = strpos($span, "\xFF", $at)) !== false && $at + 4 <= strlen($span)) {
            $header = FrameHeader::parse(substr($span, $at, 4));
            if ($header !== null && $header->bytes >= 24) {
                $next = $start + $at + $header->bytes;
                if ($next === $bytes->size()) {
                    return $start + $at;
                }
                $following = $next + 4 <= $bytes->size() ? $bytes->read($next, 4) : '';
                // After an info frame with a stated bit rate, the sound can be of free format.
                $following = FrameHeader::parse($following) ?? FrameHeader::free($following, 0);
                if ($following !== null && $following->continues($header)) {
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
}
