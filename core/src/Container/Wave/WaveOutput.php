<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\PcmForm;
use Octavox\Core\Codec\SampleKind;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\PcmOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Tag\Tags;

/** WAV with uncompressed samples: 8 bits unsigned, more bits signed, floating point where the source has it. */
final class WaveOutput extends PcmOutput
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
        return match (true) {
            $pcm->bits > 8 => new PcmForm($pcm->kind, $pcm->bits),
            $pcm->kind === SampleKind::Signed => PcmForm::unsigned8(),
            default => $pcm,
        };
    }

    protected function suits(): string
    {
        return 'accepted by every cutting program; keeps every sample';
    }

    protected function holdsChapters(): bool
    {
        return true;
    }
}
