<?php

declare(strict_types=1);

namespace Octavox\Core\Container\WavPack;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\WavPack\BlockHeader;
use Octavox\Core\Container\OneTrack;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** An opened WavPack file. */
final class WavPackFile extends OneTrack
{
    /** @param  list<Diagnostic>  $diagnostics */
    public function __construct(ByteSource $bytes, Track $track, private readonly int $end, Tags $tags, array $diagnostics)
    {
        parent::__construct('wavpack', $bytes, $track, $tags, $diagnostics);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        foreach (self::walk(new Window($this->bytes, $this->end), 0, $this->end) as [$at, $length, $header]) {
            if ($header->start >= $until) {
                return;
            }
            if ($header->start + $header->samples > $from && $header->samples > 0) {
                yield new Packet($this->bytes->read($at, $length), $header->start, $header->samples);
            }
        }
    }

    /**
     * Place and length of the blocks of all channels of one stretch after another, with the first one's header.
     *
     * @return iterable<array{int, int, BlockHeader}>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function walk(Window $window, int $at, int $end): iterable
    {
        $first = null;
        $firstAt = 0;
        while ($at + BlockHeader::BYTES <= $end) {
            $header = BlockHeader::parse($window->read($at, BlockHeader::BYTES));
            if ($header === null || $at + $header->bytes > $end) {
                return;
            }
            if ($first === null || $header->isFirst()) {
                $first = $header;
                $firstAt = $at;
            }
            $at += $header->bytes;
            if ($header->isLast()) {
                yield [$firstAt, $at - $firstAt, $first];
                $first = null;
            }
        }
    }
}
