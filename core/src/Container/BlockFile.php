<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Codec\Packet;
use Octavox\Core\Tag\Tags;

/** An opened file of coded blocks that are all equally long, in bytes and in samples, such as ADPCM and GSM. */
final class BlockFile extends OneTrack
{
    /** Bytes a packet, so that a call of the decoder is worth it. */
    private const TOGETHER = 16_384;

    /**
     * @param  int  $end  first byte after the last whole block
     * @param  list<Remark>  $remarks
     */
    public function __construct(
        string $container,
        ByteSource $bytes,
        Track $track,
        private readonly int $dataAt,
        private readonly int $end,
        private readonly int $blockBytes,
        private readonly int $blockSamples,
        Tags $tags,
        array $remarks = [],
    ) {
        parent::__construct($container, $bytes, $track, $tags, $remarks);
    }

    public function packets(Track $track, int $from, int $until): iterable
    {
        $blocks = intdiv($this->end - $this->dataAt, max(1, $this->blockBytes));
        $group = max(1, intdiv(self::TOGETHER, max(1, $this->blockBytes)));
        $preroll = $this->track->sound?->codec->preroll() ?? 0;
        $block = max(0, intdiv($from, max(1, $this->blockSamples)) - $preroll);
        $last = min($blocks, intdiv($until, max(1, $this->blockSamples)) + 1);
        for (; $block < $last; $block += $count) {
            $count = min($group, $last - $block);
            yield new Packet($this->bytes->read($this->dataAt + $block * $this->blockBytes, $count * $this->blockBytes), $block * $this->blockSamples, $count * $this->blockSamples);
        }
    }
}
