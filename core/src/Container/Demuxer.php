<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Tags;

/** An opened source: its index is read, its packets are not. */
interface Demuxer
{
    /** The word for the container in programs' output, such as `mp4`. */
    public function container(): string;

    public function source(): ByteSource;

    /** @return list<Track> */
    public function tracks(): array;

    public function tags(): Tags;

    /** @return list<Chapter> in the order of time */
    public function chapters(): array;

    /** @return list<Diagnostic> */
    public function diagnostics(): array;

    /**
     * The packets of a sound track that decode to the samples from $from up to $until (not included), in order,
     * together with those before that the codec needs to begin.
     *
     * @param  int  $from  samples from the start of the coded track
     * @return iterable<Packet>
     */
    public function packets(Track $track, int $from, int $until): iterable;
}
