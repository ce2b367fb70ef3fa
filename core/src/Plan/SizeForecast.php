<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Analysis\TriedSizes;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** Predicted sizes of what is compressed without loss, from how far stretches of the sound could be compressed. */
final class SizeForecast
{
    /** Bytes that a file takes beside kept packets, about. */
    public const KEPT_HEAD = 2048;

    /** Bytes that a file takes beside packets of a lossless codec, about. */
    public const LOSSLESS_HEAD = 4096;

    /** Samples of a packet of a codec that does not say how many. */
    public const USUAL_FRAME = 1024;

    /** Pictures in a second where nobody says how many. */
    private const USUAL_PICTURES = 25.0;

    /** Bits that a sample takes of the softest noise, and of dither with a triangular density of two steps. */
    private const BITS_OF_NOISE = 0.5;

    private const BITS_OF_DITHER = 1.4;

    /** Of the bytes for sound those for digital silence. */
    private const SILENT_SHARE = 0.014;

    /** Packets of next to no sound are mostly heads; of all else at most so much is taken of what is asked for. */
    private const MOST_SHARE = 1.5;

    /** Bits of the samples that were tried. */
    public const BITS = 16;

    /**
     * What a video takes beside the packets that are copied, about.
     *
     * @param  float  $pictures  in a second; 0 where nobody knows
     * @param  int  $packets  of sound
     */
    public static function index(VideoOutputFormat $video, float $seconds, float $pictures, int $packets): int
    {
        [$once, $picture, $packet, $second] = $video->indexBytes();

        return (int) ($once + $seconds * (($pictures > 0 ? $pictures : self::USUAL_PICTURES) * $picture + $second) + $packets * $packet);
    }

    /**
     * Of a codec whose rate follows the sound: what it takes for silence is almost nothing.
     *
     * @param  ?TriedSizes  $tried  null where nobody has tried
     * @param  int  $usual  bytes that it takes for sound
     */
    public static function following(?TriedSizes $tried, AudioFormat $audio, int $samples, int $usual): int
    {
        if ($tried === null || ! CodecModules::of($audio->codec)->followsSound()) {
            return $usual;
        }
        $share = $audio->codec === Codec::Vorbis ? $tried->vorbisShare(8 * $usual * $audio->rate / max(1, $samples) / 1000) : null;

        return (int) ($usual * min(self::MOST_SHARE, $share ?? min(1.0, self::SILENT_SHARE + $tried->bits / self::BITS_OF_NOISE)));
    }

    /** @param  float  $bits  that a sample of {@see self::BITS} bits took; each further bit of a sample holds what cannot be foretold */
    public static function lossless(float $bits, AudioFormat $audio, int $samples, bool $isDithered = false): int
    {
        // The dither is noise beside the sound; their powers add.
        $bits = $isDithered && $audio->bits() <= self::BITS ? 0.5 * log(4 ** $bits + 4 ** self::BITS_OF_DITHER - 1, 2) : $bits;
        $each = $audio->bits() >= self::BITS ? $bits + $audio->bits() - self::BITS : max(0.5, $bits - self::BITS + $audio->bits());

        return (int) ($samples * $audio->channels() * $each / 8) + 2 * self::LOSSLESS_HEAD;
    }
}
