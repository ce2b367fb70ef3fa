<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Raw;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\PcmForm;
use Octavox\Core\Codec\SampleKind;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\Abilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\Headed;
use Octavox\Core\Container\PcmOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** Samples and nothing else; who reads them must be told what they are. */
final class RawOutput extends PcmOutput
{
    public function name(): string
    {
        return 'raw';
    }

    public function label(): string
    {
        return 'Raw PCM';
    }

    public function extension(): string
    {
        return 'raw';
    }

    public function abilities(): Abilities
    {
        return new Abilities(Fidelity::Uncompressed, $this->suits(), [8, 16, 24, 32], [], Layout::MOST_CHANNELS, headerless: true);
    }

    public function predict(SoundForm $form, EncoderSetting $setting, int $samples, Tags $tags): int
    {
        return $samples * $form->frameBytes();
    }

    public function writer(ByteSink $sink, SoundForm $form, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new Headed($sink, '');
    }

    protected function stored(PcmForm $pcm): PcmForm
    {
        return $pcm->kind === SampleKind::Unsigned ? PcmForm::signed(8) : $pcm;
    }

    protected function suits(): string
    {
        return 'samples without a header, for machines that ask for it';
    }
}
