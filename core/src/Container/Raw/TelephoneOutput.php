<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Raw;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\Abilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\Headed;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** 4-bit telephone ADPCM without a header. */
final class TelephoneOutput implements OutputFormat
{
    public function name(): string
    {
        return 'vox';
    }

    public function label(): string
    {
        return '4-bit telephone ADPCM';
    }

    public function extension(): string
    {
        return 'vox';
    }

    public function abilities(): Abilities
    {
        return new Abilities(Fidelity::Lossy, 'for telephone switches and voice-mail', [], [6000, 8000], 1, headerless: true);
    }

    public function form(SoundForm $source, int $rate, Layout $layout, ?int $bits): SoundForm
    {
        return new SoundForm(Codec::Dialogic, $rate, $layout);
    }

    public function setting(EncoderSetting $wished, SoundForm $form): EncoderSetting
    {
        return EncoderSetting::none();
    }

    public function carries(SoundForm $source): bool
    {
        return $source->codec === Codec::Dialogic;
    }

    /** Two samples share a byte. */
    public function presented(SoundForm $form, int $samples): int
    {
        return $samples + $samples % 2;
    }

    public function presentedKept(SoundForm $form, int $coded, int $skip, int $samples): int
    {
        return $coded;
    }

    public function predict(SoundForm $form, EncoderSetting $setting, int $samples, Tags $tags): int
    {
        return intdiv($samples + 1, 2);
    }

    public function writer(ByteSink $sink, SoundForm $form, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new Headed($sink, '');
    }
}
