<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Failure;
use Octavox\Core\Tag\Tags;

/**
 * Writes a movie as its packets come. Room for the index is left before them; where the index outgrows it,
 * the index goes to the end and the room stays empty.
 */
final class MovieStream
{
    /** Seconds from the start of 1904, from which ISO/IEC 14496-12, 8.2.2 counts, to that of 1970. */
    public const EPOCH = 2_082_844_800;

    /** A chunk of one track ends after so many seconds, so that players need not jump far; with one track alone they never do. */
    private const CHUNK_SECONDS = 0.5;

    private const ALONE_SECONDS = 4.0;

    private readonly float $chunkSeconds;

    private readonly int $roomAt;

    private readonly int $dataAt;

    private int $current = -1;

    /**
     * @param  string  $brand  `qt  `, `M4A ` or `isom`
     * @param  non-empty-list<StreamTrack>  $tracks
     * @param  int  $room  bytes to leave for the index
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(private readonly ByteSink $sink, private readonly string $brand, private readonly array $tracks,
        private readonly Tags $tags, private readonly int $timescale, private readonly int $room, private readonly string $more = '')
    {
        $compatible = match ($brand) {
            'qt  ' => 'qt  ',
            'M4A ' => 'M4A isommp42',
            default => $brand.'iso2mp41mp42',
        };
        $this->chunkSeconds = count($tracks) > 1 ? self::CHUNK_SECONDS : self::ALONE_SECONDS;
        $sink->needsNoChecksum();
        $sink->write(Boxes::box('ftyp', $brand.pack('N', $brand === 'qt  ' ? 0x20050300 : 0x200).$compatible));
        $this->roomAt = $sink->position();
        $sink->write(pack('N', $room).'free'.str_repeat("\0", $room - 8));
        $this->dataAt = $sink->position();
        $sink->write(pack('N', 1).'mdat'.pack('J', 16));
    }

    /** Bytes that the index of a track with so many packets takes at most, about. */
    public static function indexBytes(int $packets, int $seconds): int
    {
        return 1024 + 4 * $packets + 40 * $seconds;
    }

    /**
     * @param  int  $ticks  of the track's own timescale
     * @param  int  $offset  ticks from decoding to presentation
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function write(int $track, string $data, int $ticks, int $offset = 0, bool $key = true): void
    {
        $this->add($track, strlen($data), $ticks, $offset, $key);
        $this->sink->write($data);
    }

    /**
     * As {@see self::write()}, of another file.
     *
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws Failure
     */
    public function copy(int $track, Stretch $data, int $ticks, int $offset = 0, bool $key = true): void
    {
        $this->add($track, $data->length, $ticks, $offset, $key);
        $this->sink->copy($data);
    }

    private function add(int $track, int $bytes, int $ticks, int $offset, bool $key): void
    {
        if ($this->current !== $track || $this->tracks[$track]->chunkSeconds() >= $this->chunkSeconds) {
            if ($this->current >= 0) {
                $this->tracks[$this->current]->endChunk();
            }
            $this->current = $track;
        }
        $this->tracks[$track]->add($this->sink->position(), $bytes, $ticks, $offset, $key);
    }

    /**
     * Many at a time, each of them a key; they become one chunk.
     *
     * @param  Stretch  $data  of all of them
     * @param  string  $sizes  bytes of each, 32 bits, most significant byte first
     * @param  int  $ticks  that one lasts
     *
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws Failure
     */
    public function writeRun(int $track, Stretch $data, string $sizes, int $ticks): void
    {
        if ($this->current >= 0) {
            $this->tracks[$this->current]->endChunk();
        }
        $this->current = $track;
        $this->tracks[$track]->addRun($this->sink->position(), $sizes, $ticks);
        $this->sink->copy($data);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function finish(): void
    {
        foreach ($this->tracks as $track) {
            $track->endChunk();
        }
        $this->sink->replace($this->dataAt + 8, pack('J', $this->sink->position() - $this->dataAt));
        $index = $this->index();
        $left = $this->room - strlen($index);
        if ($left === 0 || $left >= 8) {
            $this->sink->replace($this->roomAt, $index.($left === 0 ? '' : pack('N', $left).'free'));
        } else {
            $this->sink->write($index);
        }
    }

    private function index(): string
    {
        $longest = max(0, ...array_map(fn (StreamTrack $track): int => $track->presented($this->timescale), $this->tracks));
        $boxes = '';
        foreach ($this->tracks as $index => $track) {
            $boxes .= $track->box($index + 1, $this->timescale, $this->brand === 'qt  ');
        }
        $at = $this->tags->recordedAt();
        $created = $at === null ? 0 : max(0, $at + self::EPOCH);
        $header = Boxes::full('mvhd', 1, 0,
            pack('J2NJ', $created, $created, $this->timescale, $longest).pack('Nn', 0x10000, 0x100).str_repeat("\0",
                10).pack('N9', 0x10000, 0, 0, 0, 0x10000, 0, 0, 0, 0x40000000).str_repeat("\0", 24).pack('N', count($this->tracks) + 1));

        return Boxes::box('moov', $header.$boxes.ItemListWriter::box($this->tags, $this->more));
    }
}
