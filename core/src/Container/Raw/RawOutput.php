<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Raw;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\Headed;
use Octavox\Core\Container\PcmOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\TagRoom;
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

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Uncompressed, $this->suits(), [8, 16, 24, 32], [], Layout::MOST_CHANNELS, headerless: true,
            tags: TagRoom::nothing(), holdsLayout: false);
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return $samples * $audio->frameBytes();
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new Headed($sink, '');
    }

    protected function stored(SampleFormat $pcm): SampleFormat
    {
        return $pcm->kind === SampleKind::Unsigned ? SampleFormat::signed(8) : $pcm;
    }

    protected function suits(): string
    {
        return 'samples without a header, for machines that ask for it';
    }
}
