<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

use Octavox\Core\Codec\CodecModule;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\PacketTrimmer;
use Octavox\Core\Codec\PlainTrimmer;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** AAC: ISO/IEC 14496-3. */
final class AacModule extends CodecModule
{
    public function label(): string
    {
        return 'AAC';
    }

    /** One for the overlap of its windows (ISO/IEC 14496-3, 4.6.11), one more for band replication. */
    public function preroll(): int
    {
        return 2;
    }

    /** Band replication halves what it needs nearly, and its parametric stereo once more. */
    public function need(AudioFormat $audio): int
    {
        return match (true) {
            str_contains($audio->variant, 'v2') => 30,
            str_contains($audio->variant, 'HE') => 45,
            default => 75,
        };
    }

    public function leastKbps(): array
    {
        return [48, 96];
    }

    public function coarseBelow(): int
    {
        return 28;
    }

    public function canDecode(AudioFormat $audio): bool
    {
        return $audio->config !== '';
    }

    /** @throws Failure */
    public function decoder(AudioFormat $audio): Decoder
    {
        return new AacDecoder($audio);
    }

    /** @throws Failure */
    public function encoder(AudioFormat $audio, RateControl $rateControl, int $samples, EncoderSettings $settings): Encoder
    {
        return $audio->channels() > 2 ? new SurroundAacEncoder($audio, $rateControl) : new AacEncoder($audio, $rateControl);
    }

    public function trimmer(): PacketTrimmer
    {
        return new PlainTrimmer;
    }
}
