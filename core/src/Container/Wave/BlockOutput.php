<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\Adpcm\WaveBlocks;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** WAV with blocks of a telephone codec: IMA ADPCM, Microsoft ADPCM or GSM 6.10. */
final class BlockOutput implements OutputFormat
{
    private function __construct(private readonly Codec $codec, private readonly string $name, private readonly string $label, private readonly Capabilities $abilities)
    {
    }

    public static function ima(): self
    {
        return new self(Codec::AdpcmIma, 'ima', 'WAV, IMA ADPCM', new Capabilities(Fidelity::Lossy, 'a quarter of the size, for telephone and voice-mail systems', [], [8000, 11025, 16000, 22050, 32000, 44100, 48000], holdsChapters: true));
    }

    public static function microsoft(): self
    {
        return new self(Codec::AdpcmMs, 'msadpcm', 'WAV, Microsoft ADPCM', new Capabilities(Fidelity::Lossy, 'a quarter of the size, for older telephone systems', [], [8000, 11025, 16000, 22050, 32000, 44100, 48000], holdsChapters: true));
    }

    public static function gsm(): self
    {
        return new self(Codec::Gsm, 'gsm', 'WAV, GSM 6.10', new Capabilities(Fidelity::Lossy, 'a tenth of the size, speech only; for voice-mail', [], [8000], 1, holdsChapters: true));
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

    public function abilities(): Capabilities
    {
        return $this->abilities;
    }

    public function form(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        $form = new AudioFormat($this->codec, $rate, $layout);

        return $form->withConfig(WaveBlocks::format($form));
    }

    public function setting(RateControl $wished, AudioFormat $form): RateControl
    {
        return RateControl::none();
    }

    public function carries(AudioFormat $source): bool
    {
        return $source->codec === $this->codec && $source->config === WaveBlocks::format($source);
    }

    public function presented(AudioFormat $form, int $samples): int
    {
        return $samples;
    }

    public function presentedKept(AudioFormat $form, int $coded, int $skip, int $samples): ?int
    {
        return $skip === 0 && $coded - $samples < WaveBlocks::of($form)->samples ? $samples : null;
    }

    public function predict(AudioFormat $form, RateControl $setting, int $samples, Tags $tags): int
    {
        return WaveWriter::predict($form->withConfig(WaveBlocks::format($form)), $samples, $tags);
    }

    public function writer(ByteSink $sink, AudioFormat $form, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new WaveWriter($sink, $form->withConfig(WaveBlocks::format($form)), $tags, $samples);
    }
}
