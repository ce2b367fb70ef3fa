<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\Alac\MagicCookie;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\LosslessOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LayoutNotCarried;
use Octavox\Core\Tag\Tags;

/** ALAC in M4A. */
final class AlacOutput extends LosslessOutput
{
    public function name(): string
    {
        return 'alac';
    }

    public function container(): string
    {
        return 'm4a';
    }

    public function label(): string
    {
        return 'ALAC (M4A)';
    }

    public function extension(): string
    {
        return 'm4a';
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossless,
            'keeps every sample at little more than half the size; for phones and players that ask for it', [16, 24], [], 8,
            holdsGaps: true, holdsChapters: true);
    }

    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): int
    {
        return $samples;
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new M4aWriter($sink, $audio, $tags, $samples, $skip);
    }

    protected function codec(): Codec
    {
        return Codec::Alac;
    }

    /** @throws LayoutNotCarried */
    protected function ordered(Layout $layout): Layout
    {
        return $layout->carriedBy(array_map(MagicCookie::layout(...), range(3, 8)), $this->label());
    }
}
