<?php

declare(strict_types=1);

namespace Octavox\Core\Testing;

use Octavox\Core\Bytes\ByteSink;

/** Writes a transport stream of one program: ISO/IEC 13818-1, 2.4. */
final class TransportWriter
{
    private const PACKET = 188;

    private const MAP = 0x1000;

    private const FIRST = 0x100;

    /** Tables come again after so many packets of streams. */
    private const TABLES_EVERY = 40;

    /** @var array<int, int> how many packets of each stream there were, modulo 16 */
    private array $counters = [];

    private int $sinceTables = self::TABLES_EVERY;

    private int $written = 0;

    /**
     * @param  list<array{int, ?string, string}>  $streams  stream type, language, further descriptors
     * @param  int  $step  188; 192 puts four bytes of time before each packet, 204 sixteen of correction after it
     * @param  string  $program  descriptors of the program
     */
    public function __construct(private readonly ByteSink $sink, private readonly array $streams, private readonly int $step = self::PACKET,
        private readonly string $program = '') {}

    /**
     * @param  int  $stream  counted from 0
     * @param  int  $pts  ticks of 90 kHz
     */
    public function write(int $stream, string $data, int $pts, ?int $dts = null): void
    {
        if (++$this->sinceTables > self::TABLES_EVERY) {
            $this->sinceTables = 0;
            $this->tables();
        }
        $type = $this->streams[$stream][0];
        $picture = in_array($type, [0x01, 0x02, 0x1B, 0x24], true);
        $id = $picture ? 0xE0 : (in_array($type, [0x03, 0x04, 0x0F, 0x11], true) ? 0xC0 : 0xBD);
        $times = $dts === null ? self::time(2, $pts) : self::time(3, $pts).self::time(1, $dts);
        $optional = chr(0x80).chr($dts === null ? 0x80 : 0xC0).chr(strlen($times)).$times;
        $length = strlen($optional) + strlen($data);
        $bytes = "\0\0\1".chr($id).pack('n', $picture || $length > 0xFFFF ? 0 : $length).$optional.$data;
        $first = true;
        for ($at = 0, $end = strlen($bytes); $at < $end; $at += $count) {
            // The clock comes with every picture, or with the first stream where there is none.
            $clock = $first && $stream === 0 ? chr(0x10).self::clock($dts ?? $pts) : '';
            $room = self::PACKET - 4 - ($clock === '' ? 0 : 1 + strlen($clock));
            $count = min($room, $end - $at);
            $this->packet(self::FIRST + $stream, $first, $clock, substr($bytes, $at, $count));
            $first = false;
        }
    }

    private function packet(int $pid, bool $first, string $adaptation, string $payload): void
    {
        $stuffing = self::PACKET - 4 - strlen($payload) - ($adaptation === '' ? 0 : 1 + strlen($adaptation));
        $field = '';
        if ($adaptation !== '' || $stuffing > 0) {
            $body = $adaptation;
            if ($adaptation === '') {
                $body = $stuffing === 1 ? '' : "\0".str_repeat("\xFF", $stuffing - 2);
            } else {
                $body .= str_repeat("\xFF", $stuffing);
            }
            $field = chr(strlen($body)).$body;
        }
        $counter = $this->counters[$pid] = (($this->counters[$pid] ?? -1) + 1) & 15;
        $packet = "\x47".pack('n', ($first ? 0x4000 : 0) | $pid).chr(($field === '' ? 0x10 : 0x30) | $counter).$field.$payload;
        $this->sink->write(match ($this->step) {
            192 => pack('N', $this->written * 200 & 0x3FFFFFFF).$packet,
            204 => $packet.str_repeat("\0", 16),
            default => $packet,
        });
        $this->written++;
    }

    private function tables(): void
    {
        $this->section(0, "\0", pack('n2', 1, 0xE000 | self::MAP));
        $streams = '';
        foreach ($this->streams as $index => [$type, $language, $more]) {
            $descriptors = ($language === null ? '' : "\x0A\x04".str_pad(substr($language, 0, 3), 3)."\0").$more;
            $streams .= chr($type).pack('n2', 0xE000 | self::FIRST + $index, 0xF000 | strlen($descriptors)).$descriptors;
        }
        $this->section(self::MAP, "\x02", pack('n2', 0xE000 | self::FIRST, 0xF000 | strlen($this->program)).$this->program.$streams);
    }

    private function section(int $pid, string $table, string $body): void
    {
        // Program 1, version 0, current, the only section; the sum has four bytes: 2.4.4
        $section = $table.pack('n', 0xB000 | 5 + strlen($body) + 4).pack('n', 1)."\xC1\0\0".$body;
        $section .= pack('N', self::sum($section));
        $this->packet($pid, true, '', str_pad("\0".$section, self::PACKET - 4, "\xFF"));
    }

    /** CRC-32 begun with ones, not reflected: ISO/IEC 13818-1, annex A. PHP's `crc32` gives it turned and inverted. */
    private static function sum(string $bytes): int
    {
        /** @var array{1: int} $sum */
        $sum = unpack('V', hash('crc32', $bytes, true));

        return ~$sum[1] & 0xFFFFFFFF;
    }

    private static function time(int $mark, int $ticks): string
    {
        $ticks &= (1 << 33) - 1;

        return chr($mark << 4 | $ticks >> 30 << 1 | 1).pack('n', ($ticks >> 15 & 0x7FFF) << 1 | 1).pack('n', ($ticks & 0x7FFF) << 1 | 1);
    }

    private static function clock(int $ticks): string
    {
        $base = max(0, $ticks - 9000) & (1 << 33) - 1;

        return pack('N', $base >> 1).pack('n', ($base & 1) << 15 | 0x7E00);
    }
}
