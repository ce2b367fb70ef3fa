<?php

declare(strict_types=1);

namespace Octavox\Core\Container\CoreAudio;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Container\OneTrack;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;

/** An opened CAF file whose packets differ in size. */
final class PacketFile extends OneTrack
{
    private const SPAN = 262_144;

    public function __construct(OpenedBytes $file, Track $track, private readonly PacketTable $table, private readonly int $dataAt,
        private readonly int $end, private readonly int $packetFrames)
    {
        parent::__construct($file->container, $file->bytes, $track, $file->tags, $file->diagnostics);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        $window = new Window($this->bytes, $this->end, self::SPAN);
        $length = max(1, $this->packetFrames);
        $first = $from - CodecModules::preroll($track) * $length;
        $at = $this->dataAt;
        $start = 0;
        foreach ($this->table->sizes() as $size) {
            if ($start >= $until || $at + $size > $this->end) {
                return;
            }
            if ($start + $length > $first) {
                yield new Packet($window->read($at, $size), $start, $length);
            }
            $at += $size;
            $start += $length;
        }
    }
}
