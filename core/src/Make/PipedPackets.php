<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Container\OneTrack;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** Packets that come one by one through a pipe: length of the bytes (32 bits), first sample (64), samples (32), the bytes. */
final class PipedPackets extends OneTrack
{
    private const HEAD = 16;

    private readonly \HashContext $hash;

    /** @param  resource  $stream */
    public function __construct(private $stream, Track $track)
    {
        parent::__construct('packets', new MemoryBytes('', 'packets'), $track, Tags::none());
        $this->hash = hash_init('xxh128');
    }

    public static function pack(Packet $packet): string
    {
        return pack('NJN', strlen($packet->data), $packet->start, $packet->length).$packet->data;
    }

    /** All that come, whatever is asked for: they come once. */
    public function packets(Track $track, int $from, int $until): iterable
    {
        while (($head = $this->take(self::HEAD)) !== '') {
            /** @var array{bytes: int, start: int, samples: int} $numbers */
            $numbers = unpack('Nbytes/Jstart/Nsamples', $head);
            $data = $this->take($numbers['bytes']);
            hash_update($this->hash, $data);
            yield new Packet($data, $numbers['start'], $numbers['samples']);
        }
    }

    /** XXH128 of all packets that came, those after the last presented sample too. */
    public function hash(): string
    {
        iterator_count((fn () => yield from $this->packets($this->track, 0, 0))());

        return hash_final($this->hash);
    }

    /** Exactly so many bytes; fewer only where the stream has ended. */
    private function take(int $count): string
    {
        $bytes = '';
        while (strlen($bytes) < $count && ! feof($this->stream)) {
            $bytes .= (string) fread($this->stream, max(1, $count - strlen($bytes)));
        }

        return $bytes;
    }
}
