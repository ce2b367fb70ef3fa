<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\PcmForm;
use Octavox\Core\Codec\SampleKind;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Sound\Layout;

/** What files of uncompressed samples have in common: the width of the source unless another is wished, every rate, every layout. */
abstract class PcmOutput implements OutputFormat
{
    /** How this kind of file stores samples of that kind and width. */
    abstract protected function stored(PcmForm $pcm): PcmForm;

    protected function holdsChapters(): bool
    {
        return false;
    }

    public function abilities(): Abilities
    {
        return new Abilities(Fidelity::Uncompressed, $this->suits(), [8, 16, 24, 32], [], Layout::MOST_CHANNELS, holdsChapters: $this->holdsChapters());
    }

    /** Without a wish: the source's own width, 16 bits where a lossy codec has none. */
    public function form(SoundForm $source, int $rate, Layout $layout, ?int $bits): SoundForm
    {
        $whole = $source->pcm === null || ! in_array($source->pcm->kind, [SampleKind::ALaw, SampleKind::MuLaw], true);
        $pcm = match (true) {
            $bits !== null => PcmForm::signed($bits),
            $source->pcm?->kind === SampleKind::Float => PcmForm::float($source->pcm->bits),
            $whole && $source->bits() > 0 => PcmForm::signed(8 * intdiv($source->bits() + 7, 8)),
            default => PcmForm::signed(16),
        };

        return SoundForm::pcm($this->stored($pcm), $rate, $layout->inMaskOrder());
    }

    public function setting(EncoderSetting $wished, SoundForm $form): EncoderSetting
    {
        return EncoderSetting::none();
    }

    public function carries(SoundForm $source): bool
    {
        return $source->pcm !== null && $source->pcm->exists() && $this->stored($source->pcm)->equals($source->pcm);
    }

    public function presented(SoundForm $form, int $samples): int
    {
        return $samples;
    }

    public function presentedKept(SoundForm $form, int $coded, int $skip, int $samples): int
    {
        return $samples;
    }

    /** What it is good for, in a few words. */
    abstract protected function suits(): string;
}
