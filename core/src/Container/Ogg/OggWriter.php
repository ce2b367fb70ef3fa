<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ogg;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;

/** Writes one logical stream: RFC 3533. The last page says where the sound ends, to the sample. */
final class OggWriter implements SoundWriter
{
    /** A page ends after so many bytes or segments, so that players can seek in fine steps. */
    private const PAGE_BYTES = 8192;

    private const MOST_SEGMENTS = 255;

    private readonly int $serial;

    private int $sequence = 0;

    private string $table = '';

    private string $body = '';

    private int $position = 0;

    private int $granule = -1;

    private bool $continued = false;

    /**
     * @param  list<string>  $headers  set-up packets, the first on a page of its own
     * @param  int  $samples  that it will present: streams of one set-up still have numbers of their own
     * @param  int  $skip  decoded samples that are not presented, counted in the places all the same
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(private readonly ByteSink $sink, array $headers, private readonly int $skip, int $samples)
    {
        $this->serial = (int) hexdec(substr(hash('xxh32', implode('', $headers).$samples), 0, 8));
        foreach ($headers as $index => $header) {
            $this->add($header, 0);
            if ($index === 0 || $index === count($headers) - 1) {
                $this->flush($index === 0 ? Page::FIRST : 0);
            }
        }
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function write(Packet $packet): void
    {
        if ($this->granule >= 0 && (strlen($this->body) >= self::PAGE_BYTES
            || strlen($this->table) + intdiv(strlen($packet->data), 255) + 1 > self::MOST_SEGMENTS)) {
            $this->flush(0);
        }
        $this->position += $packet->length;
        $this->add($packet->data, $this->position);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function finish(int $samples, AudioFormat $audio): void
    {
        $this->granule = $this->skip + $samples;
        $this->flush(Page::LAST);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function add(string $packet, int $granule): void
    {
        $left = strlen($packet);
        $at = 0;
        do {
            if (strlen($this->table) === self::MOST_SEGMENTS) {
                $this->flush(0);
                $this->continued = $at > 0;
            }
            $part = min(255, $left);
            $this->table .= chr($part);
            $this->body .= substr($packet, $at, $part);
            $at += $part;
            $left -= $part;
        } while ($left > 0 || $part === 255);
        $this->granule = $granule;
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function flush(int $flags): void
    {
        $flags |= $this->continued ? Page::CONTINUED : 0;
        $head = fn (int $sum): string => "OggS\0".chr($flags).pack('PVVV', $this->granule, $this->serial, $this->sequence,
            $sum).chr(strlen($this->table)).$this->table;
        $this->sink->write($head(self::checksum($head(0).$this->body)).$this->body);
        $this->sequence++;
        $this->table = '';
        $this->body = '';
        $this->granule = -1;
        $this->continued = false;
    }

    /**
     * CRC-32 with the polynomial 0x04C11DB7, not reflected, begun with zero (RFC 3533, 6). PHP's `crc32` has the same polynomial
     * and order but begins with all ones and turns its result: four bytes of ones before the text bring it to zero.
     */
    private static function checksum(string $bytes): int
    {
        /** @var array{1: int} $sum */
        $sum = unpack('V', hash('crc32', "\xFF\xFF\xFF\xFF".$bytes, true));

        return ~$sum[1] & 0xFFFFFFFF;
    }
}
