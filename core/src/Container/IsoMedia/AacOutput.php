<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\Aac\AacRates;
use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\Abilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** AAC in M4A. */
final class AacOutput implements OutputFormat
{
    public function name(): string
    {
        return 'aac';
    }

    public function label(): string
    {
        return 'AAC (M4A)';
    }

    public function extension(): string
    {
        return 'm4a';
    }

    public function abilities(): Abilities
    {
        return new Abilities(Fidelity::Lossy, 'small; for phones, web pages and video', [], AacRates::ALL, 2, AacRates::KBPS, holdsGaps: true, holdsChapters: true);
    }

    public function form(SoundForm $source, int $rate, Layout $layout, ?int $bits): SoundForm
    {
        return new SoundForm(Codec::Aac, $rate, $layout, null, '', 1024, 'AAC-LC');
    }

    public function setting(EncoderSetting $wished, SoundForm $form): EncoderSetting
    {
        return AacRates::nearest($wished, $form);
    }

    public function carries(SoundForm $source): bool
    {
        return $source->codec === Codec::Aac && $source->config !== '';
    }

    public function presented(SoundForm $form, int $samples): int
    {
        return $samples;
    }

    public function presentedKept(SoundForm $form, int $coded, int $skip, int $samples): int
    {
        return $samples;
    }

    public function predict(SoundForm $form, EncoderSetting $setting, int $samples, Tags $tags): int
    {
        return intdiv($samples * $setting->kbps * 125, $form->rate) + M4aWriter::roomBytes($form, $samples, $tags);
    }

    public function writer(ByteSink $sink, SoundForm $form, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new M4aWriter($sink, $form, $tags, $samples, $skip);
    }
}
