<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;

/** An opened file of coded blocks that are all equally long, in bytes and in samples, such as ADPCM and GSM. */
final class BlockFile extends OneTrack
{
    /** Bytes a packet, so that a call of the decoder is worth it. */
    private const TOGETHER = 16_384;

    /**
     * @param  int  $end  first byte after the last whole block
     */
    public function __construct(
        OpenedBytes $file,
        Track $track,
        private readonly int $dataAt,
        private readonly int $end,
        private readonly int $blockBytes,
        private readonly int $blockSamples,
    ) {
        parent::__construct($file->container, $file->bytes, $track, $file->tags, $file->diagnostics);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        $blocks = intdiv($this->end - $this->dataAt, max(1, $this->blockBytes));
        if ($this->blockSamples === 0) {
            yield from $this->untold($blocks, $from, $until);

            return;
        }
        $group = max(1, intdiv(self::TOGETHER, max(1, $this->blockBytes)));
        $preroll = CodecModules::preroll($this->track);
        $block = max(0, intdiv($from, $this->blockSamples) - $preroll);
        $last = min($blocks, intdiv($until, $this->blockSamples) + 1);
        for (; $block < $last; $block += $count) {
            $count = min($group, $last - $block);
            yield new Packet($this->bytes->read($this->dataAt + $block * $this->blockBytes, $count * $this->blockBytes),
                $block * $this->blockSamples, $count * $this->blockSamples);
        }
    }

    /**
     * @return iterable<Packet> blocks of a format whose samples only the whole length tells, spread evenly over it
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function untold(int $blocks, int $from, int $until): iterable
    {
        $coded = $this->track->timeline->coded;
        for ($block = 0; $block < $blocks; $block++) {
            $start = intdiv($block * $coded, $blocks);
            $next = intdiv(($block + 1) * $coded, $blocks);
            if ($start >= $until) {
                return;
            }
            if ($next > $from) {
                yield new Packet($this->bytes->read($this->dataAt + $block * $this->blockBytes, $this->blockBytes), $start, $next - $start);
            }
        }
    }
}
