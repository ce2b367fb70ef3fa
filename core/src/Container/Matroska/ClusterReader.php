<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\BrokenStructure;

/** Reads the blocks of clusters: only their heads, never what they hold. RFC 9559, 5.1.3 and 10. */
final class ClusterReader
{
    /** Bytes at the start of a block that hold its head and all lace sizes of sound. */
    private const HEAD = 2048;

    public function __construct(private readonly ElementReader $elements) {}

    /**
     * @param  ?int  $track  only frames of this one; null for all
     * @return iterable<Frame>
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function frames(Element $cluster, ?int $track = null): iterable
    {
        $time = 0;
        foreach ($this->elements->children($cluster) as $child) {
            if ($cluster->open && in_array($child->id, Id::TOP, true)) {
                return;
            }
            if ($child->id === Id::TIMESTAMP) {
                $time = $this->elements->number($child);
            } elseif ($child->id === Id::SIMPLE_BLOCK) {
                yield from $this->block($child, $time, $track, null, 0);
            } elseif ($child->id === Id::BLOCK_GROUP) {
                yield from $this->group($child, $time, $track);
            }
        }
    }

    /**
     * @return iterable<Frame>
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function group(Element $group, int $time, ?int $track): iterable
    {
        $block = null;
        $key = true;
        $discard = 0;
        $duration = 0;
        foreach ($this->elements->children($group) as $child) {
            match ($child->id) {
                Id::BLOCK => $block = $child,
                Id::REFERENCE_BLOCK => $key = false,
                Id::BLOCK_DURATION => $duration = $this->elements->number($child),
                Id::DISCARD_PADDING => $discard = $this->elements->signed($child),
                default => null,
            };
        }

        return $block === null ? [] : $this->block($block, $time, $track, $key, $discard, $duration);
    }

    /**
     * @param  ?bool  $key  null where the block itself tells
     * @return iterable<Frame>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function block(Element $block, int $clusterTime, ?int $wanted, ?bool $key, int $discard, int $duration = 0): iterable
    {
        $head = $this->elements->head($block, 12);
        [$track, $width] = ElementReader::variable($head, 0);
        if ($width === 0 || strlen($head) < $width + 3 || $wanted !== null && $track !== $wanted) {
            return;
        }
        $relative = ord($head[$width]) << 8 | ord($head[$width + 1]);
        $time = $clusterTime + ($relative >= 0x8000 ? $relative - 0x10000 : $relative);
        $flags = ord($head[$width + 2]);
        $key ??= ($flags & 0x80) !== 0;
        $lacing = $flags >> 1 & 3;
        $at = $block->bodyAt + $width + 3;
        if ($lacing === 0) {
            yield new Frame($track, $time, 0, $at, $block->end - $at, $key, $discard, $duration);

            return;
        }
        foreach ($this->laced($block, $lacing, $width + 3) as $index => [$place, $bytes]) {
            yield new Frame($track, $time, $index, $place, $bytes, $key, $discard);
        }
    }

    /**
     * RFC 9559, 10.3: 1 after Xiph, 2 all equal, 3 after EBML.
     *
     * @return list<array{int, int}> place and bytes of each frame; none where the sizes cannot be
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function laced(Element $block, int $lacing, int $skip): array
    {
        $head = $this->elements->head($block, self::HEAD);
        $count = ord($head[$skip] ?? "\0") + 1;
        $at = $skip + 1;
        $sizes = [];
        if ($lacing === 1) {
            for ($index = 0; $index < $count - 1; $index++) {
                $size = 0;
                do {
                    $byte = ord($head[$at++] ?? "\0");
                    $size += $byte;
                } while ($byte === 255);
                $sizes[] = $size;
            }
        } elseif ($lacing === 3) {
            $size = 0;
            for ($index = 0; $index < $count - 1; $index++) {
                [$value, $width] = ElementReader::variable($head, $at);
                if ($width === 0) {
                    return [];
                }
                // The first is a size, the others are differences around the middle of what fits.
                $size = $index === 0 ? $value : $size + $value - ((1 << 7 * $width - 1) - 1);
                $sizes[] = $size;
                $at += $width;
            }
        }
        $left = $block->length() - $at;
        if ($lacing === 2) {
            $sizes = array_fill(0, $count, intdiv(max(0, $left), $count));
        } else {
            $sizes[] = $left - array_sum($sizes);
        }
        $frames = [];
        $place = $block->bodyAt + $at;
        foreach ($sizes as $size) {
            if ($size < 0 || $place + $size > $block->end) {
                return [];
            }
            $frames[] = [$place, $size];
            $place += $size;
        }

        return $frames;
    }
}
