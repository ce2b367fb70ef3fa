<?php

declare(strict_types=1);

namespace App\Http;

use App\Files\FileShrank;

/**
 * A ZIP file that is written while it is sent: files are put one behind the other as they are, and listed at the end. PKWARE
 * APPNOTE.TXT 6.3.9; sections are named beside each record.
 */
final class ZipWriter
{
    private const BYTES_AT_ONCE = 1 << 18;

    /** 4.4.1.4: from here on sizes and offsets are told in the records of 64 bits. */
    private const MOST_32 = 0xFFFF_FFFF;

    /** 4.4.4: sizes follow the data (bit 3), names are UTF-8 (bit 11). */
    private const FLAGS = 0x0808;

    private int $offset = 0;

    /** @var list<string> records of the central directory */
    private array $listed = [];

    /** @param  \Closure(string): void  $send */
    public function __construct(private readonly \Closure $send) {}

    /**
     * @param  resource  $handle  read from here on
     * @param  int  $size  bytes that are put in
     *
     * @throws FileShrank where it does not give so many
     */
    public function add(string $name, mixed $handle, int $size, int $modified): void
    {
        $begin = $this->begin($name, $size, $modified);
        $sum = hash_init('crc32b');
        for ($left = $size; $left > 0; $left -= strlen($part)) {
            $part = (string) fread($handle, min(self::BYTES_AT_ONCE, $left));
            if ($part === '') {
                throw FileShrank::while($name);
            }
            hash_update($sum, $part);
            $this->write($part);
        }
        $this->end($name, $begin, (int) hexdec(hash_final($sum)), $size, $modified);
    }

    /** Counts a file instead of sending it: what comes of that has the length of the archive, not its bytes. */
    public function count(string $name, int $size): void
    {
        $begin = $this->begin($name, $size, 0);
        $this->offset += $size;
        $this->end($name, $begin, 0, $size, 0);
    }

    /** @return int bytes of all that was put in or counted */
    public function length(): int
    {
        return $this->offset;
    }

    private static function isLarge(int $size): bool
    {
        return $size >= self::MOST_32 - self::BYTES_AT_ONCE;
    }

    /** @return int where the file begins in the archive */
    private function begin(string $name, int $size, int $modified): int
    {
        $begin = $this->offset;
        [$time, $date] = self::dos($modified);
        // 4.3.7: local file header; 4.5.3: sizes of 64 bits, still empty.
        $extra = self::isLarge($size) ? pack('vvPP', 1, 16, 0, 0) : '';
        $empty = self::isLarge($size) ? self::MOST_32 : 0;
        $this->write(pack('VvvvvvVVVvv', 0x04034B50, self::isLarge($size) ? 45 : 20, self::FLAGS, 0, $time, $date, 0, $empty, $empty,
            strlen($name), strlen($extra)).$name.$extra);

        return $begin;
    }

    private function end(string $name, int $begin, int $crc, int $bytes, int $modified): void
    {
        $isLarge = self::isLarge($bytes);
        [$time, $date] = self::dos($modified);
        // 4.3.9: data descriptor
        $this->write(pack($isLarge ? 'VVPP' : 'VVVV', 0x08074B50, $crc, $bytes, $bytes));
        $isFar = $begin >= self::MOST_32;
        $extra = ($isLarge ? pack('PP', $bytes, $bytes) : '').($isFar ? pack('P', $begin) : '');
        $extra = $extra === '' ? '' : pack('vv', 1, strlen($extra)).$extra;
        // 4.3.12: central directory header
        $this->listed[] = pack('VvvvvvvVVVvvvvvVV', 0x02014B50, 0x032D, $isLarge || $isFar ? 45 : 20, self::FLAGS, 0, $time, $date, $crc,
            $isLarge ? self::MOST_32 : $bytes, $isLarge ? self::MOST_32 : $bytes, strlen($name), strlen($extra), 0, 0, 0,
            0o100644 << 16, $isFar ? self::MOST_32 : $begin).$name.$extra;
    }

    public function finish(): void
    {
        $begin = $this->offset;
        foreach ($this->listed as $record) {
            $this->write($record);
        }
        $size = $this->offset - $begin;
        $count = count($this->listed);
        if ($count >= 0xFFFF || $begin + $size >= self::MOST_32) {
            // 4.3.14: end of central directory of 64 bits; 4.3.15: where it is
            $at = $this->offset;
            $this->write(pack('VPvvVVPPPP', 0x06064B50, 44, 45, 45, 0, 0, $count, $count, $size, $begin));
            $this->write(pack('VVPV', 0x07064B50, 0, $at, 1));
        }
        // 4.3.16: end of central directory
        $this->write(pack('VvvvvVVv', 0x06054B50, 0, 0, min($count, 0xFFFF), min($count, 0xFFFF), min($size, self::MOST_32),
            min($begin, self::MOST_32), 0));
    }

    private function write(string $bytes): void
    {
        $this->offset += strlen($bytes);
        ($this->send)($bytes);
    }

    /** @return array{int, int} 4.4.6: time and date in two words */
    private static function dos(int $modified): array
    {
        [$year, $month, $day, $hour, $minute, $second] = array_map(intval(...), explode(' ', date('Y n j G i s', $modified)));

        return [$hour << 11 | $minute << 5 | intdiv($second, 2), (max(1980, min(2107, $year)) - 1980) << 9 | $month << 5 | $day];
    }
}
