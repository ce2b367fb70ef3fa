<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Adts;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\Aac\AacRates;
use Octavox\Core\Codec\Aac\AdtsFraming;
use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\Abilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\Tags;

/** AAC with a header before every access unit; it cannot say what to leave out, so it presents whole units. */
final class AdtsOutput implements OutputFormat
{
    /** Samples by which encoder and decoder are late, and the unit that is padded. */
    private const DELAY = 1600;

    public function name(): string
    {
        return 'adts';
    }

    public function label(): string
    {
        return 'AAC (ADTS)';
    }

    public function extension(): string
    {
        return 'aac';
    }

    public function abilities(): Abilities
    {
        return new Abilities(Fidelity::Lossy, 'a bare stream, for broadcasting chains', [], AacRates::ALL, 2, AacRates::KBPS, holdsChapters: true);
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
        return $source->codec === Codec::Aac && $source->config !== '' && AdtsFraming::header($source->config, 100) !== null;
    }

    public function presented(SoundForm $form, int $samples): int
    {
        return 1024 * intdiv($samples + self::DELAY + 1023, 1024);
    }

    public function presentedKept(SoundForm $form, int $coded, int $skip, int $samples): int
    {
        return $coded;
    }

    public function predict(SoundForm $form, EncoderSetting $setting, int $samples, Tags $tags): int
    {
        return intdiv($samples * $setting->kbps * 125, $form->rate) + 7 * intdiv($samples, 1024) + strlen(Id3v2::write($tags));
    }

    public function writer(ByteSink $sink, SoundForm $form, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new AdtsWriter($sink, $form, $tags);
    }
}
