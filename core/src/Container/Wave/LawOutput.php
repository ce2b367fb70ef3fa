<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\PcmOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** WAV with one kind of samples that is not a whole number: A-law or µ-law (ITU-T G.711), or floating point. */
final class LawOutput extends PcmOutput
{
    private function __construct(private readonly SampleFormat $pcm, private readonly string $name, private readonly string $label,
        private readonly string $suits, private readonly bool $phone) {}

    public static function aLaw(): self
    {
        return new self(new SampleFormat(SampleKind::ALaw, 8), 'alaw', 'WAV, A-law',
            'for telephone systems in Europe and most of the world', true);
    }

    public static function muLaw(): self
    {
        return new self(new SampleFormat(SampleKind::MuLaw, 8), 'ulaw', 'WAV, µ-law',
            'for telephone systems in North America and Japan', true);
    }

    public static function float(): self
    {
        return new self(SampleFormat::float(32), 'float', 'WAV, 32-bit float', 'for further work: levels over full scale are kept', false);
    }

    public function name(): string
    {
        return $this->name;
    }

    public function container(): string
    {
        return 'wav';
    }

    public function label(): string
    {
        return $this->label;
    }

    public function extension(): string
    {
        return 'wav';
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities($this->phone ? Fidelity::Lossy : Fidelity::Uncompressed, $this->suits, [], [], Layout::MOST_CHANNELS,
            holdsChapters: true, holdsBroadcast: ! $this->phone);
    }

    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        return AudioFormat::pcm($this->pcm, $rate, $layout->inMaskOrder());
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return WaveWriter::predict($audio, $samples, $tags);
    }

    /**
     * @throws Failure
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new WaveWriter($sink, $audio, $tags, $samples);
    }

    protected function stored(SampleFormat $pcm): SampleFormat
    {
        return $this->pcm;
    }

    protected function suits(): string
    {
        return $this->suits;
    }
}
