<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;

/**
 * How long a track can be at most by what is there of it. Times are only announced: a few bytes can announce years, and whatever is not
 * sound in them would be filled in with silence.
 */
final class PlausibleLength
{
    /** Seconds of silence that are believed whatever else there is, and how many times as long as its sound a track's silence may be. */
    public const MOST_SILENCE = 3600;

    public const MUCH_MORE = 10;

    /**
     * Samples of each channel that one byte can stand for at most: an empty packet of the codec by the length of its longest frame (ISO/IEC
     * 14496-3, 4.5.2.1; RFC 6716, 3.2.1; Vorbis I, 4.2.2; RFC 9639, 9.1; ISO/IEC 11172-3, 2.4.2.3; ATSC A/52, 4.1).
     */
    private const SAMPLES_A_BYTE = ['aac' => 1024, 'opus' => 5760, 'vorbis' => 8192, 'flac' => 8192, 'alac' => 1024, 'wavpack' => 4096,
        'mp3' => 144, 'mp2' => 144, 'mp1' => 144, 'ac3' => 24, 'eac3' => 512];

    private const OTHERS = 8192;

    /**
     * @param  int  $fileBytes  of the whole file
     * @return int samples
     */
    public static function most(Track $track, int $fileBytes): int
    {
        $audio = $track->sound;
        if ($audio === null) {
            return 0;
        }
        $bytes = $track->codedBytes > 0 ? min($track->codedBytes, $fileBytes) : $fileBytes;
        $there = (int) min(PHP_INT_MAX >> 8, ceil($bytes * self::samplesAByte($audio)));

        return $there + max(self::MOST_SILENCE * $audio->rate, self::MUCH_MORE * $there);
    }

    /** @param  list<Segment>  $segments */
    public static function isExceeded(Track $track, array $segments, int $fileBytes): bool
    {
        return Segment::total($segments) > self::most($track, $fileBytes);
    }

    private static function samplesAByte(AudioFormat $audio): float
    {
        return $audio->codec === Codec::Pcm && $audio->frameBytes() > 0 ? 1 / $audio->frameBytes()
            : self::SAMPLES_A_BYTE[$audio->codec->value] ?? self::OTHERS;
    }
}
