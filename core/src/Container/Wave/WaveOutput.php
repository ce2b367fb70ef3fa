<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\PcmOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Tag\Tags;

/** WAV with uncompressed samples: 8 bits unsigned, more bits signed, floating point where the source has it. */
final class WaveOutput extends PcmOutput
{
    public function name(): string
    {
        return 'wav';
    }

    public function container(): string
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
        return match (true) {
            $pcm->bits > 8 => new SampleFormat($pcm->kind, $pcm->bits),
            $pcm->kind === SampleKind::Signed => SampleFormat::unsigned8(),
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

    protected function holdsBroadcast(): bool
    {
        return true;
    }
}
