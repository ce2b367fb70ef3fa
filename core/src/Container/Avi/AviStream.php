<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Avi;

use Octavox\Core\Container\BitmapHeader;
use Octavox\Core\Container\Wave\FormatChunk;

/** What the header of one stream says, and where its chunks stand. */
final class AviStream
{
    /** Place, bytes and key of each chunk, packed. */
    private string $chunks = '';

    public int $bytes = 0;

    public int $count = 0;

    public ?FormatChunk $format = null;

    public ?BitmapHeader $bitmap = null;

    /** Where the index of OpenDML stands, 0 where there is none. */
    public int $indexAt = 0;

    public int $indexBytes = 0;

    /**
     * @param  string  $kind  `auds`, `vids` or `txts`
     * @param  int  $scale  and $rate: units a second are $rate / $scale
     * @param  int  $start  units before it begins
     * @param  int  $sampleSize  bytes of a unit, 0 where each chunk is one
     */
    public function __construct(public readonly string $kind, public readonly string $handler, public readonly int $scale,
        public readonly int $rate, public readonly int $start, public readonly int $length, public readonly int $sampleSize) {}

    /** @param  bool  $key  whether decoding can begin with it */
    public function add(int $at, int $bytes, bool $key): void
    {
        $this->chunks .= pack('PVC', $at, $bytes, $key ? 1 : 0);
        $this->bytes += $bytes;
        $this->count++;
    }

    public function forget(): void
    {
        $this->chunks = '';
        $this->bytes = 0;
        $this->count = 0;
    }

    /** @return iterable<array{int, int, bool}> place, bytes, key */
    public function chunks(): iterable
    {
        for ($at = 0, $end = strlen($this->chunks); $at < $end; $at += 13) {
            /** @var array{a: int, b: int, c: int} $chunk */
            $chunk = unpack('Pa/Vb/Cc', $this->chunks, $at);
            yield [$chunk['a'], $chunk['b'], $chunk['c'] === 1];
        }
    }
}
