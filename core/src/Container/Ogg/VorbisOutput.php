<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ogg;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Codec\Vorbis\VorbisHeaders;
use Octavox\Core\Codec\Vorbis\VorbisLayout;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\CoverInText;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LayoutNotCarried;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Tag\VorbisComment;

/** Vorbis in Ogg: Vorbis I specification, A. */
final class VorbisOutput implements CoverInText, OutputFormat
{
    private const USUAL_KBPS_EACH = 80;

    /** Least and most kbit/s a channel that the encoder takes, up to each rate in Hz. */
    private const BOUNDS = [9000 => [8, 32], 15000 => [12, 44], 19000 => [16, 86], 26000 => [16, 86], 40000 => [30, 190],
        50000 => [32, 240], 200000 => [32, 240]];

    /** Mean kbit/s of stereo at 44.1 kHz for each level of fidelity, 0 to 9: the encoder's documentation. */
    private const MEAN_RATES = [500, 320, 256, 224, 192, 160, 128, 112, 96, 80];

    public function name(): string
    {
        return 'vorbis';
    }

    public function container(): string
    {
        return 'ogg';
    }

    public function label(): string
    {
        return 'Ogg Vorbis';
    }

    public function extension(): string
    {
        return 'ogg';
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossy, 'small and free; for games and open players', [],
            [8000, 11025, 16000, 22050, 32000, 44100, 48000], 8, [48, 64, 96, 128, 160, 192, 256, 320, 400], true, holdsGaps: true,
            holdsChapters: true, rateModes: [RateMode::Average], stereoCoding: true);
    }

    /** @throws LayoutNotCarried */
    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        return new AudioFormat(Codec::Vorbis, $rate, $layout->carriedBy(VorbisLayout::all(), $this->label()));
    }

    public function rateControl(RateControl $asked, AudioFormat $audio): RateControl
    {
        if ($asked->quality !== null) {
            return $asked;
        }
        $kbps = $asked->kbps ?: self::USUAL_KBPS_EACH * $audio->channels();
        foreach (self::BOUNDS as $rate => [$least, $most]) {
            if ($audio->rate <= $rate) {
                return RateControl::exactly(max($least * $audio->channels(), min($most * $audio->channels(), $kbps)));
            }
        }

        return RateControl::exactly($kbps);
    }

    public function carries(AudioFormat $source): bool
    {
        return $source->codec === Codec::Vorbis && VorbisHeaders::parse($source->config) !== null;
    }

    public function presented(AudioFormat $audio, int $samples): int
    {
        return $samples;
    }

    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): ?int
    {
        return $skip === 0 ? $samples : null;
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        $kbps = $rateControl->quality === null ? $rateControl->kbps
            : (int) (self::MEAN_RATES[$rateControl->quality] * $audio->channels() / 2 * min(1.0, $audio->rate / 44100));

        return 5000 + intdiv($samples * $kbps * 125, $audio->rate);
    }

    /**
     * @throws Failure
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        $headers = VorbisHeaders::parse($audio->config) ?? throw BrokenStructure::at(CodecModules::describe($audio), 0,
            'its set-up is missing');

        // The framing bit ends the comments: Vorbis I specification, 5.2.1.
        return new OggWriter($sink,
            [$headers->identification, "\x03vorbis".VorbisComment::write($tags, $maker)."\x01", $headers->setup], 0, $samples);
    }
}
