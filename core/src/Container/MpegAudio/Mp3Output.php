<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegAudio;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\Mp3\Mp3Facts;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** MP3 with an info header and tags. */
final class Mp3Output implements OutputFormat
{
    private const USUAL_KBPS = 192;

    /** Mean kbit/s of stereo at 44.1 kHz that the encoder's documentation gives for each level of fidelity, 0 to 9. */
    private const MEAN_RATES = [245, 225, 190, 175, 165, 130, 115, 100, 85, 65];

    public function name(): string
    {
        return 'mp3';
    }

    public function container(): string
    {
        return $this->name();
    }

    public function label(): string
    {
        return 'MP3';
    }

    public function extension(): string
    {
        return 'mp3';
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossy, 'small, played everywhere; for listening and sending', [], Mp3Facts::RATES, 2,
            [32, 48, 64, 96, 128, 160, 192, 256, 320], true, holdsChapters: true,
            rateModes: [RateMode::Constant, RateMode::Average], stereoCoding: true, checksums: true);
    }

    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        return new AudioFormat(Codec::Mp3, $rate, $layout, null, '', $rate >= 32000 ? 1152 : 576);
    }

    public function rateControl(RateControl $asked, AudioFormat $audio): RateControl
    {
        return $asked->quality === null
            ? RateControl::exactly(FrameHeader::nearestRate($audio->rate, $asked->kbps ?: self::USUAL_KBPS)) : $asked;
    }

    public function carries(AudioFormat $source): bool
    {
        return $source->codec === Codec::Mp3;
    }

    public function presented(AudioFormat $audio, int $samples): int
    {
        return $samples;
    }

    /** The info header has twelve bits for the delay. */
    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): ?int
    {
        return match (true) {
            $skip === 0 => $coded,
            $skip >= Mp3Facts::DECODER_DELAY && $skip < 4096 + Mp3Facts::DECODER_DELAY
                && $coded - $skip + Mp3Facts::DECODER_DELAY - $samples < 4096 => $samples,
            default => null,
        };
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        $mean = $rateControl->quality === null ? $rateControl->kbps
            : (int) round(self::MEAN_RATES[$rateControl->quality] * min(1.0, $audio->rate / 44100) * ($audio->channels() === 1 ? 0.55
            : 1.0));

        return MpegAudioWriter::predict($audio, $samples, $tags, $mean);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new MpegAudioWriter($sink, $audio, $tags, $skip, $maker);
    }
}
