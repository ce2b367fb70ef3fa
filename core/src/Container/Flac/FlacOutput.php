<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flac;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\Flac\StreamInfo;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\LosslessOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** FLAC in its own file. */
final class FlacOutput extends LosslessOutput
{
    public function name(): string
    {
        return 'flac';
    }

    public function label(): string
    {
        return 'FLAC';
    }

    public function extension(): string
    {
        return 'flac';
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossless, 'keeps every sample at little more than half the size; for archives', [16, 24], [], 8,
            holdsChapters: true, compression: [0, 1, 2, 3, 4, 5, 6, 7, 8]);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new FlacWriter($sink, $audio, $tags);
    }

    protected function codec(): Codec
    {
        return Codec::Flac;
    }

    /** A layout that the format knows goes in its order; any other in that of the mask, with the mask among the comments. */
    protected function ordered(Layout $layout): Layout
    {
        $usual = StreamInfo::layout($layout->count());

        return $layout->sounds($usual) ? $usual : $layout->inMaskOrder();
    }
}
