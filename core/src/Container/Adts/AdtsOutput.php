<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Adts;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\Aac\AacDelay;
use Octavox\Core\Codec\Aac\AacLayouts;
use Octavox\Core\Codec\Aac\AacRates;
use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\LateStart;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LayoutNotCarried;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\Tags;

/** AAC with a header before every access unit; it cannot say what to leave out, so it presents whole units. */
final class AdtsOutput implements LateStart, OutputFormat
{
    public function name(): string
    {
        return 'adts';
    }

    public function container(): string
    {
        return $this->name();
    }

    public function label(): string
    {
        return 'AAC (ADTS)';
    }

    public function extension(): string
    {
        return 'aac';
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossy, 'a bare stream, for broadcasting chains', [], AacRates::ALL, 8, AacRates::KBPS,
            holdsChapters: true, rateModes: [RateMode::Constant]);
    }

    /** @throws LayoutNotCarried */
    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        return new AudioFormat(Codec::Aac, $rate, AacLayouts::carrying($layout, $this->label()), null, '', 1024, 'AAC-LC');
    }

    public function rateControl(RateControl $asked, AudioFormat $audio): RateControl
    {
        return AacRates::nearest($asked, $audio);
    }

    /** @throws BytesMissing */
    public function carries(AudioFormat $source): bool
    {
        return $source->codec === Codec::Aac && $source->config !== '' && AdtsFrameParser::header($source->config, 100) !== null;
    }

    public function startsLate(AudioFormat $audio): int
    {
        return AacDelay::samples($audio->rate, $audio->channels());
    }

    public function presented(AudioFormat $audio, int $samples): int
    {
        return 1024 * intdiv($samples + AacDelay::samples($audio->rate, $audio->channels()) + 1023, 1024);
    }

    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): int
    {
        return $coded;
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return intdiv($samples * $rateControl->kbps * 125, $audio->rate) + 7 * intdiv($samples, 1024) + strlen(Id3v2::write($tags));
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new AdtsWriter($sink, $audio, $tags);
    }
}
