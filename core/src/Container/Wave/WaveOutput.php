<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\PcmForm;
use Octavox\Core\Codec\SampleKind;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** WAV with uncompressed samples. */
final class WaveOutput implements OutputFormat
{
    public function name(): string
    {
        return 'wav';
    }

    public function label(): string
    {
        return 'WAV';
    }

    public function extension(): string
    {
        return 'wav';
    }

    /** Without a wish: the source's own width, 16 bits where a lossy codec has none. */
    public function form(SoundForm $source, int $rate, Layout $layout, ?int $bits): SoundForm
    {
        $pcm = match (true) {
            $bits === 8 => PcmForm::unsigned8(),
            $bits !== null => PcmForm::signed($bits),
            $source->pcm === null, in_array($source->pcm->kind, [SampleKind::ALaw, SampleKind::MuLaw], true) => PcmForm::signed(16),
            $source->pcm->kind === SampleKind::Float => PcmForm::float($source->pcm->bits),
            $source->pcm->bits === 8 => PcmForm::unsigned8(),
            default => PcmForm::signed($source->pcm->bits),
        };

        return SoundForm::pcm($pcm, $rate, $layout);
    }

    public function setting(EncoderSetting $wished, SoundForm $form): EncoderSetting
    {
        return EncoderSetting::none();
    }

    public function rates(): array
    {
        return [];
    }

    public function mostChannels(): int
    {
        return Layout::MOST_CHANNELS;
    }

    public function carries(SoundForm $source): bool
    {
        return $source->pcm !== null && $source->pcm->exists() && ($source->pcm->bits === 8 ? $source->pcm->kind !== SampleKind::Signed : ! $source->pcm->bigEndian);
    }

    public function predict(SoundForm $form, EncoderSetting $setting, int $samples, Tags $tags): int
    {
        return WaveWriter::predict($form, $samples, $tags);
    }

    public function writer(ByteSink $sink, SoundForm $form, Tags $tags, int $samples, int $delay, string $maker): SoundWriter
    {
        return new WaveWriter($sink, $form, $tags, $samples);
    }
}
