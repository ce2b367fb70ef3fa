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
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** WAV with blocks of a telephone codec: IMA ADPCM, Microsoft ADPCM or GSM 6.10. */
final class BlockOutput implements OutputFormat
{
    private function __construct(private readonly Codec $codec, private readonly string $name, private readonly string $label,
        private readonly Capabilities $capabilities) {}

    public static function ima(): self
    {
        return new self(Codec::AdpcmIma, 'ima', 'WAV, IMA ADPCM',
            new Capabilities(Fidelity::Lossy, 'a quarter of the size, for telephone and voice-mail systems', [],
                [8000, 11025, 16000, 22050, 32000, 44100, 48000], holdsChapters: true));
    }

    public static function microsoft(): self
    {
        return new self(Codec::AdpcmMs, 'msadpcm', 'WAV, Microsoft ADPCM',
            new Capabilities(Fidelity::Lossy, 'a quarter of the size, for older telephone systems', [],
                [8000, 11025, 16000, 22050, 32000, 44100, 48000], holdsChapters: true));
    }

    public static function gsm(): self
    {
        return new self(Codec::Gsm, 'gsm', 'WAV, GSM 6.10',
            new Capabilities(Fidelity::Lossy, 'a tenth of the size, speech only; for voice-mail', [], [8000], 1, holdsChapters: true));
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
        return $this->capabilities;
    }

    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        $audio = new AudioFormat($this->codec, $rate, $layout);

        return $audio->withConfig(WaveBlocks::format($audio));
    }

    public function rateControl(RateControl $asked, AudioFormat $audio): RateControl
    {
        return RateControl::none();
    }

    public function carries(AudioFormat $source): bool
    {
        return $source->codec === $this->codec && $source->config === WaveBlocks::format($source);
    }

    public function presented(AudioFormat $audio, int $samples): int
    {
        return $samples;
    }

    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): ?int
    {
        return $skip === 0 && $coded - $samples < WaveBlocks::of($audio)->samples ? $samples : null;
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return WaveWriter::predict($audio->withConfig(WaveBlocks::format($audio)), $samples, $tags);
    }

    /**
     * @throws Failure
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new WaveWriter($sink, $audio->withConfig(WaveBlocks::format($audio)), $tags, $samples);
    }
}
