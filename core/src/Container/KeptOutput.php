<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\TagRoom;
use Octavox\Core\Tag\Tags;

/** What files of a codec have in common that is not encoded here: its frames are copied from where they are, one after another. */
abstract class KeptOutput implements OutputFormat
{
    public function container(): string
    {
        return $this->name();
    }

    /** @return non-empty-list<Codec> */
    abstract protected function codecs(): array;

    abstract protected function suits(): string;

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossy, $this->suits(), [], [], Layout::MOST_CHANNELS, makes: false, tags: TagRoom::nothing());
    }

    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        return in_array($source->codec, $this->codecs(), true) ? $source : new AudioFormat($this->codecs()[0], $rate, $layout);
    }

    public function rateControl(RateControl $asked, AudioFormat $audio): RateControl
    {
        return RateControl::none();
    }

    public function carries(AudioFormat $source): bool
    {
        return in_array($source->codec, $this->codecs(), true);
    }

    public function presented(AudioFormat $audio, int $samples): int
    {
        return $samples;
    }

    /** Frames alone cannot say what to leave out. */
    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): int
    {
        return $coded;
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return 0;
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new Headed($sink, $this->head($audio));
    }

    /** Bytes before the first frame. */
    protected function head(AudioFormat $audio): string
    {
        return '';
    }
}
