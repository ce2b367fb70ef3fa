<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\Adpcm\WaveBlocks;
use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\Abilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** WAV with blocks of a telephone codec: IMA ADPCM, Microsoft ADPCM or GSM 6.10. */
final class BlockOutput implements OutputFormat
{
    private function __construct(private readonly Codec $codec, private readonly string $name, private readonly string $label, private readonly Abilities $abilities)
    {
    }

    public static function ima(): self
    {
        return new self(Codec::AdpcmIma, 'ima', 'WAV, IMA ADPCM', new Abilities(Fidelity::Lossy, 'a quarter of the size, for telephone and voice-mail systems', [], [8000, 11025, 16000, 22050, 32000, 44100, 48000], holdsChapters: true));
    }

    public static function microsoft(): self
    {
        return new self(Codec::AdpcmMs, 'msadpcm', 'WAV, Microsoft ADPCM', new Abilities(Fidelity::Lossy, 'a quarter of the size, for older telephone systems', [], [8000, 11025, 16000, 22050, 32000, 44100, 48000], holdsChapters: true));
    }

    public static function gsm(): self
    {
        return new self(Codec::Gsm, 'gsm', 'WAV, GSM 6.10', new Abilities(Fidelity::Lossy, 'a tenth of the size, speech only; for voice-mail', [], [8000], 1, holdsChapters: true));
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
        return $this->abilities;
    }

    public function form(SoundForm $source, int $rate, Layout $layout, ?int $bits): SoundForm
    {
        $form = new SoundForm($this->codec, $rate, $layout);

        return $form->withConfig(WaveBlocks::format($form));
    }

    public function setting(EncoderSetting $wished, SoundForm $form): EncoderSetting
    {
        return EncoderSetting::none();
    }

    public function carries(SoundForm $source): bool
    {
        return $source->codec === $this->codec && $source->config === WaveBlocks::format($source);
    }

    public function presented(SoundForm $form, int $samples): int
    {
        return $samples;
    }

    public function presentedKept(SoundForm $form, int $coded, int $skip, int $samples): ?int
    {
        return $skip === 0 && $coded - $samples < WaveBlocks::of($form)->samples ? $samples : null;
    }

    public function predict(SoundForm $form, EncoderSetting $setting, int $samples, Tags $tags): int
    {
        return WaveWriter::predict($form->withConfig(WaveBlocks::format($form)), $samples, $tags);
    }

    public function writer(ByteSink $sink, SoundForm $form, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new WaveWriter($sink, $form->withConfig(WaveBlocks::format($form)), $tags, $samples);
    }
}
