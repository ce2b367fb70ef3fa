<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\PcmForm;
use Octavox\Core\Codec\SampleKind;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\Abilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\PcmOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** WAV with one kind of samples that is not a whole number: A-law or µ-law (ITU-T G.711), or floating point. */
final class LawOutput extends PcmOutput
{
    private function __construct(private readonly PcmForm $pcm, private readonly string $name, private readonly string $label, private readonly string $suits, private readonly bool $phone)
    {
    }

    public static function aLaw(): self
    {
        return new self(new PcmForm(SampleKind::ALaw, 8), 'alaw', 'WAV, A-law', 'for telephone systems in Europe and most of the world', true);
    }

    public static function muLaw(): self
    {
        return new self(new PcmForm(SampleKind::MuLaw, 8), 'ulaw', 'WAV, µ-law', 'for telephone systems in North America and Japan', true);
    }

    public static function float(): self
    {
        return new self(PcmForm::float(32), 'float', 'WAV, 32-bit float', 'for further work: levels over full scale are kept', false);
    }

    public function name(): string
    {
        return $this->name;
    }

    public function label(): string
    {
        return $this->label;
    }

    public function extension(): string
    {
        return 'wav';
    }

    public function abilities(): Abilities
    {
        return new Abilities($this->phone ? Fidelity::Lossy : Fidelity::Uncompressed, $this->suits, [], [], Layout::MOST_CHANNELS, holdsChapters: true);
    }

    public function form(SoundForm $source, int $rate, Layout $layout, ?int $bits): SoundForm
    {
        return SoundForm::pcm($this->pcm, $rate, $layout->inMaskOrder());
    }

    public function predict(SoundForm $form, EncoderSetting $setting, int $samples, Tags $tags): int
    {
        return WaveWriter::predict($form, $samples, $tags);
    }

    public function writer(ByteSink $sink, SoundForm $form, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new WaveWriter($sink, $form, $tags, $samples);
    }

    protected function stored(PcmForm $pcm): PcmForm
    {
        return $this->pcm;
    }

    protected function suits(): string
    {
        return $this->suits;
    }
}
