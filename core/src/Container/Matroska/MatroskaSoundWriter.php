<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Tag\Tags;

/** Writes one sound track as Matroska; the last block says what of it is not presented. */
final class MatroskaSoundWriter implements SoundWriter
{
    private readonly MatroskaWriter $writer;

    private ?Packet $held = null;

    private int $samples = 0;

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(ByteSink $sink, private readonly AudioFormat $audio, Tags $tags, private readonly int $skip)
    {
        $this->writer = new MatroskaWriter($sink, 'matroska', [MatroskaTrack::sound($audio, $skip)], $tags, $tags->chapters);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws Failure
     */
    public function write(Packet $packet): void
    {
        $this->give(0);
        $this->held = $packet;
    }

    /**
     * @throws FileUnwritable
     * @throws FileUnreadable
     * @throws BytesMissing
     * @throws Failure
     */
    public function finish(int $samples, AudioFormat $audio): void
    {
        $this->give(max(0, $this->samples + ($this->held->length ?? 0) - $this->skip - $samples));
        $this->writer->finish();
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws Failure
     */
    private function give(int $discard): void
    {
        if ($this->held !== null) {
            $this->writer->write(0, $this->held->data, $this->nanoseconds($this->samples), true, $this->nanoseconds($this->held->length),
                $this->nanoseconds($discard));
            $this->samples += $this->held->length;
            $this->held = null;
        }
    }

    private function nanoseconds(int $samples): int
    {
        return (int) round($samples * 1e9 / $this->audio->rate);
    }
}
