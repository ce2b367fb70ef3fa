<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Flac\FlacSplicer;
use Octavox\Core\Codec\Pcm\PcmSplicer;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\LibraryMissing;

/**
 * The codecs whose encoders know nothing of what was before. The others do: MP3 fills the bits that frames before left over, AAC, Opus
 * and Vorbis overlap their windows and remember levels, WavPack and ADPCM go on predicting.
 */
final class StreamSplicers
{
    /**
     * @throws BlockTooLarge
     * @throws EncoderRefused
     * @throws LibraryMissing
     */
    public static function of(AudioFormat $audio, EncoderSettings $settings = new EncoderSettings): ?StreamSplicer
    {
        return match ($audio->codec) {
            Codec::Pcm => new PcmSplicer($audio),
            Codec::Flac => new FlacSplicer($audio, $settings),
            default => null,
        };
    }
}
