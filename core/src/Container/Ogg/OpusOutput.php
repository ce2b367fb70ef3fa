<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ogg;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Opus\OpusHead;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
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

/** Opus in Ogg: RFC 7845. */
final class OpusOutput implements CoverInText, OutputFormat
{
    private const USUAL_KBPS_EACH = 64;

    /** RFC 6716, 2.1.1: up to 510 kbit/s for each stream. */
    private const MOST_KBPS_EACH = 255;

    public function name(): string
    {
        return 'opus';
    }

    public function container(): string
    {
        return 'ogg';
    }

    public function label(): string
    {
        return 'Opus';
    }

    public function extension(): string
    {
        return 'opus';
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossy, 'the smallest at the same fidelity; for the web and newer players', [], [OpusHead::RATE],
            8, [16, 24, 32, 48, 64, 96, 128, 160, 192, 256, 320, 450], holdsGaps: true, holdsChapters: true,
            rateModes: [RateMode::Average, RateMode::Constant]);
    }

    /** @throws LayoutNotCarried */
    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        return new AudioFormat(Codec::Opus, $rate, $layout->carriedBy(VorbisLayout::all(), $this->label()));
    }

    public function rateControl(RateControl $asked, AudioFormat $audio): RateControl
    {
        $kbps = $asked->kbps ?: self::USUAL_KBPS_EACH * $audio->channels();

        return RateControl::exactly(max(6 * $audio->channels(), min(self::MOST_KBPS_EACH * $audio->channels(), $kbps)));
    }

    public function carries(AudioFormat $source): bool
    {
        return $source->codec === Codec::Opus && OpusHead::parse($source->config) !== null;
    }

    public function presented(AudioFormat $audio, int $samples): int
    {
        return $samples;
    }

    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): ?int
    {
        return $skip <= 0xFFFF ? $samples : null;
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return 600 + intdiv($samples * $rateControl->kbps * 125, $audio->rate)
            + intdiv($samples, 48000) * 60;
    }

    /**
     * @throws Failure
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        $head = OpusHead::parse($audio->config) ?? throw BrokenStructure::at(CodecModules::describe($audio), 0, 'its set-up is missing');

        return new OggWriter($sink, [$head->withSkip($skip)->bytes(),
            'OpusTags'.VorbisComment::write(OpusGain::inPlaceOfReplayGain($tags), $maker)], $skip, $samples);
    }
}
