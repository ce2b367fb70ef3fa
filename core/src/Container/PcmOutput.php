<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\TagRoom;

/** What files of uncompressed samples have in common: the bit depth of the source unless another is asked for, every rate, every layout. */
abstract class PcmOutput implements OutputFormat
{
    public function container(): string
    {
        return $this->name();
    }

    /** How this kind of file stores samples of that kind and bit depth. */
    abstract protected function stored(SampleFormat $pcm): SampleFormat;

    protected function holdsChapters(): bool
    {
        return false;
    }

    protected function tagRoom(): TagRoom
    {
        return new TagRoom;
    }

    protected function holdsBroadcast(): bool
    {
        return false;
    }

    /** Whether it says which channel is which, where there are more than two. */
    protected function holdsLayout(): bool
    {
        return true;
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Uncompressed, $this->suits(), [8, 16, 24, 32], [], Layout::MOST_CHANNELS,
            holdsChapters: $this->holdsChapters(), holdsBroadcast: $this->holdsBroadcast(), tags: $this->tagRoom(),
            holdsLayout: $this->holdsLayout());
    }

    /** Where nothing is asked: the source's own bit depth, 16 bits where a lossy codec has none. */
    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        $whole = $source->pcm === null || ! in_array($source->pcm->kind, [SampleKind::ALaw, SampleKind::MuLaw], true);
        $pcm = match (true) {
            $bits !== null => SampleFormat::signed($bits),
            $source->pcm?->kind === SampleKind::Float => SampleFormat::float($source->pcm->bits),
            $whole && $source->bits() > 0 => SampleFormat::signed(min(32, 8 * intdiv($source->bits() + 7, 8))),
            default => SampleFormat::signed(16),
        };

        return AudioFormat::pcm($this->stored($pcm), $rate, $layout->inMaskOrder());
    }

    public function rateControl(RateControl $asked, AudioFormat $audio): RateControl
    {
        return RateControl::none();
    }

    public function carries(AudioFormat $source): bool
    {
        // Wider whole numbers are read, and written by hardly anybody.
        return $source->pcm !== null && $source->pcm->exists() && ($source->pcm->bits <= 32 || $source->pcm->kind === SampleKind::Float)
            && $this->stored($source->pcm)->equals($source->pcm);
    }

    public function presented(AudioFormat $audio, int $samples): int
    {
        return $samples;
    }

    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): int
    {
        return $samples;
    }

    /** What it is good for, in a few words. */
    abstract protected function suits(): string;
}
