<?php

declare(strict_types=1);

namespace Octavox\Core\Container\WavPack;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\Headed;
use Octavox\Core\Container\LosslessOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\ApeTag;
use Octavox\Core\Tag\Tags;

/** WavPack in its own file, with an APE tag. */
final class WavPackOutput extends LosslessOutput
{
    public function name(): string
    {
        return 'wavpack';
    }

    public function label(): string
    {
        return 'WavPack';
    }

    public function extension(): string
    {
        return 'wv';
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossless, 'keeps every sample at little more than half the size, in many channels',
            [8, 16, 24], [], 32, compression: [0, 1, 2, 3]);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new Headed($sink, '', ApeTag::write($tags));
    }

    protected function codec(): Codec
    {
        return Codec::WavPack;
    }

    protected function ordered(Layout $layout): Layout
    {
        return $layout->inMaskOrder();
    }
}
