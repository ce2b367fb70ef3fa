<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Flac\FlacJoining;
use Octavox\Core\Codec\Pcm\PcmJoining;

/**
 * The codecs whose encoders know nothing of what was before. The others do: MP3 fills the bits that frames before left over, AAC, Opus
 * and Vorbis overlap their windows and remember levels, WavPack and ADPCM go on predicting.
 */
final class Joinings
{
    public static function of(SoundForm $form): ?Joining
    {
        return match ($form->codec) {
            Codec::Pcm => new PcmJoining($form),
            Codec::Flac => new FlacJoining($form),
            default => null,
        };
    }
}
