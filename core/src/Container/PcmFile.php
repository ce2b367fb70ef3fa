<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** An opened file of uncompressed samples that stand together. */
final class PcmFile extends OneTrack implements StretchSource
{
    private const FRAMES = 16384;

    /** @param  list<Diagnostic>  $diagnostics */
    public function __construct(string $container, ByteSource $bytes, Track $track, private readonly int $dataAt, Tags $tags,
        array $diagnostics = [])
    {
        parent::__construct($container, $bytes, $track, $tags, $diagnostics);
    }

    /**
     * @throws CodecNotDecodable
     * @throws BytesMissing
     */
    public function stretches(Track $track, int $from, int $until): iterable
    {
        $width = $this->width();
        $end = $this->dataAt + min($until, $this->track->timeline->samples()) * $width;
        for ($at = $this->dataAt + $from * $width; $at < $end; $at += $count) {
            $count = min(max(1, intdiv(self::MOST_BYTES, $width)) * $width, $end - $at);
            yield Stretch::in($this->bytes, $at, $count);
        }
    }

    /**
     * @throws BytesMissing
     * @throws CodecNotDecodable
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        $width = $this->width();
        $until = min($until, $this->track->timeline->samples());
        for ($at = $from; $at < $until; $at += $count) {
            $count = min(self::FRAMES, $until - $at);
            yield new Packet($this->bytes->read($this->dataAt + $at * $width, $count * $width), $at, $count);
        }
    }

    /**
     * Bytes of one frame.
     *
     * @throws CodecNotDecodable
     */
    private function width(): int
    {
        $width = $this->track->sound?->frameBytes() ?? 0;

        return $width > 0 ? $width : throw CodecNotDecodable::named(CodecModules::describeTrack($this->track));
    }
}
