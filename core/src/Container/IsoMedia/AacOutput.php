<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\Aac\AacLayouts;
use Octavox\Core\Codec\Aac\AacRates;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LayoutNotCarried;
use Octavox\Core\Tag\Tags;

/** AAC in M4A; under another extension what phones take as a ring tone. */
final class AacOutput implements OutputFormat
{
    private function __construct(private readonly string $name, private readonly string $label, private readonly string $extension,
        private readonly string $suits) {}

    public static function plain(): self
    {
        return new self('aac', 'AAC (M4A)', 'm4a', 'small; for phones, web pages and video');
    }

    public static function ringTone(): self
    {
        return new self('m4r', 'Ring tone (M4R)', 'm4r', 'a ring tone; phones take half a minute of it');
    }

    public function name(): string
    {
        return $this->name;
    }

    public function container(): string
    {
        return 'm4a';
    }

    public function label(): string
    {
        return $this->label;
    }

    public function extension(): string
    {
        return $this->extension;
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossy, $this->suits, [], AacRates::ALL, 8, AacRates::KBPS,
            holdsGaps: true, holdsChapters: true, rateModes: [RateMode::Constant]);
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

    public function carries(AudioFormat $source): bool
    {
        return $source->codec === Codec::Aac && $source->config !== '';
    }

    public function presented(AudioFormat $audio, int $samples): int
    {
        return $samples;
    }

    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): int
    {
        return $samples;
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return intdiv($samples * $rateControl->kbps * 125, $audio->rate) + M4aWriter::roomBytes($audio, $samples, $tags);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new M4aWriter($sink, $audio, $tags, $samples, $skip);
    }
}
