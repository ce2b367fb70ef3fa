<?php

declare(strict_types=1);

namespace Octavox\Core\Testing;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Disc\TitleSet;

/**
 * Writes small video discs: one title set, one program chain a title, its tables, and an image with a plain file system (ECMA-119) around
 * them. Pictures are of 352 by 288, 25 a second.
 */
final class VideoDiscWriter
{
    private const SECTOR = 2048;

    /** Pictures of a unit. */
    private const UNIT = 12;

    /** @var list<list<DiscCellParts>> */
    private array $titles = [];

    private string $vob = '';

    /** @var list<list<array{first: int, last: int, unit: int, vob: int, angle: int, parts: DiscCellParts}>> cells of each title */
    private array $cells = [];

    /** @var list<array{int, int, int}> recording, first and last sector of each piece */
    private array $pieces = [];

    /**
     * @param  list<array{int, int, int, string, int}>  $sounds  of each track its coding mode, number of stream as {@see ProgramFormat}
     *          counts, channels, two letters of its language, and extension of the language
     */
    public function __construct(private readonly string $label, private readonly array $sounds) {}

    /** @param  list<DiscCellParts>  $cells */
    public function title(array $cells): self
    {
        $this->titles[] = $cells;

        return $this;
    }

    /** @return array<string, string> bytes of each file of VIDEO_TS, by its name, in the order of the disc */
    public function files(): array
    {
        $this->vob = '';
        $this->cells = $this->pieces = [];
        $time = 0;
        foreach ($this->titles as $title) {
            $time = 9000;
            $cells = [];
            foreach ($title as $cell) {
                $time = $cell->clock ?? $time;
                array_push($cells, ...$this->cell($cell, $time));
                $time += $cell->ticks();
            }
            $this->cells[] = $cells;
        }
        $set = $this->setTables();
        $main = $this->mainTables(intdiv(strlen($set), self::SECTOR));

        return ['VIDEO_TS.IFO' => $main, 'VIDEO_TS.BUP' => $main, 'VTS_01_0.IFO' => $set, 'VTS_01_1.VOB' => $this->vob,
            'VTS_01_0.BUP' => $set];
    }

    public function folder(string $path): void
    {
        is_dir("$path/VIDEO_TS") || mkdir("$path/VIDEO_TS", 0775, true);
        foreach ($this->files() as $name => $bytes) {
            file_put_contents("$path/VIDEO_TS/$name", $bytes);
        }
    }

    /** An image: descriptors, tables of paths, both directories, files. */
    public function image(ByteSink $sink): void
    {
        $files = $this->files();
        [$root, $folder, $next] = [20, 21, 22];
        $records = self::record("\0", $folder, self::SECTOR, true).self::record("\1", $root, self::SECTOR, true);
        $bodies = '';
        foreach ($files as $name => $bytes) {
            $records .= self::record($name.';1', $next, strlen($bytes), false);
            $bodies .= $bytes.str_repeat("\0", -strlen($bytes) & self::SECTOR - 1);
            $next = 22 + intdiv(strlen($bodies), self::SECTOR);
        }
        $both = fn (int $number): string => pack('V', $number).pack('N', $number);
        $half = fn (int $number): string => pack('v', $number).pack('n', $number);
        $paths = fn (string $number, string $short): string => "\1\0".pack($number, $root).pack($short, 1)."\0\0"."\x08\0".pack($number,
            $folder).pack($short, 1).'VIDEO_TS';
        $date = str_repeat('0', 16)."\0";
        $volume = "\1CD001\1\0".str_pad('', 32).str_pad(substr($this->label, 0, 32), 32).str_repeat("\0", 8).$both($next)
            .str_repeat("\0", 32).$half(1).$half(1).$half(self::SECTOR).$both(strlen($paths('V', 'v'))).pack('V', 18).pack('V', 0)
            .pack('N', 19).pack('N', 0).self::record("\0", $root, self::SECTOR, true).str_pad('', 128 * 4).str_pad('', 37 * 3)
            .$date.$date.$date.$date."\1";
        $pad = fn (string $bytes): string => str_pad($bytes, self::SECTOR, "\0");
        $sink->write(str_repeat("\0", 16 * self::SECTOR).$pad($volume).$pad("\xFFCD001\1").$pad($paths('V', 'v')).$pad($paths('N', 'n'))
            .$pad(self::record("\0", $root, self::SECTOR, true).self::record("\1", $root, self::SECTOR, true)
                .self::record('VIDEO_TS', $folder, self::SECTOR, true)).$pad($records));
        $sink->write($bodies);
    }

    private static function record(string $name, int $sector, int $length, bool $isFolder): string
    {
        $record = "\0".pack('V', $sector).pack('N', $sector).pack('V', $length).pack('N', $length)."\x7E\6\1\0\0\0\0"
            .($isFolder ? "\2" : "\0")."\0\0".pack('v', 1).pack('n', 1).chr(strlen($name)).$name.(strlen($name) % 2 === 0 ? "\0" : '');

        return chr(strlen($record) + 1).$record;
    }

    /** @return list<array{first: int, last: int, unit: int, vob: int, angle: int, parts: DiscCellParts}> one for each camera */
    private function cell(DiscCellParts $cell, int $time): array
    {
        $cameras = array_values(array_filter([$cell, $cell->angle]));
        $places = [];
        $numbers = array_map(fn (int $camera): int => max([0, ...array_column($this->pieces, 0)]) + 1 + $camera, array_keys($cameras));
        $next = array_map(fn (DiscCellParts $one): array => array_fill(0, count($one->sounds), 0), $cameras);
        for ($from = 0; $from < count($cell->pictures); $from += self::UNIT) {
            foreach ($cameras as $index => $camera) {
                $first = intdiv(strlen($this->vob), self::SECTOR);
                $this->unit($camera, $from, $time, $numbers[$index], $next[$index]);
                $last = intdiv(strlen($this->vob), self::SECTOR) - 1;
                $places[$index]['first'] ??= $first;
                $places[$index]['unit'] = $first;
                $places[$index]['last'] = $last;
                $end = count($this->pieces) - 1;
                if ($end >= 0 && $this->pieces[$end][0] === $numbers[$index] && $this->pieces[$end][2] === $first - 1) {
                    $this->pieces[$end][2] = $last;
                } else {
                    $this->pieces[] = [$numbers[$index], $first, $last];
                }
            }
        }

        return array_map(fn (int $index): array => [...$places[$index], 'vob' => $numbers[$index],
            'angle' => count($cameras) === 1 ? 0 : ($index === 0 ? 0x50 : 0xD0), 'parts' => $cameras[$index]], array_keys($cameras));
    }

    /** @param  array<int, int>  $next  which frame of each sound comes next */
    private function unit(DiscCellParts $cell, int $from, int $time, int $vob, array &$next): void
    {
        $begin = strlen($this->vob);
        $this->vob .= str_repeat("\0", self::SECTOR);
        $until = min(count($cell->pictures), $from + self::UNIT);
        $isLast = $until === count($cell->pictures);
        for ($picture = $from; $picture < $until; $picture++) {
            foreach (str_split($cell->pictures[$picture], 1990) as $index => $part) {
                $this->pack(0xE0, $part, $index === 0 ? $time + 3600 * $picture : null, $time);
            }
            foreach ($cell->sounds as $track => $frames) {
                [$data, $first, $count] = ['', null, 0];
                while (isset($frames[$next[$track]]) && ($frames[$next[$track]][1] < 3600 * ($picture + 1)
                    || $isLast && $picture === $until - 1)) {
                    $data .= $frames[$next[$track]][0];
                    $first ??= $frames[$next[$track]][1];
                    $next[$track]++;
                }
                $this->sound($track, $data, $time + ($first ?? 0));
            }
        }
        $sectors = intdiv(strlen($this->vob) - $begin, self::SECTOR);
        $this->vob = substr_replace($this->vob, self::navigation(intdiv($begin, self::SECTOR), $sectors - 1, $time + 3600 * $from,
            $time + 3600 * $until, $vob), $begin, self::SECTOR);
    }

    private function sound(int $track, string $data, int $time): void
    {
        [$mode, $stream, $channels] = $this->sounds[$track];
        $group = $mode === 4 ? 4 * $channels : 1;
        $room = intdiv(1980, $group) * $group;
        foreach ($data === '' ? [] : str_split($data, $room) as $index => $part) {
            $moment = $mode === 4 ? $time + intdiv($index * $room, 2 * $channels) * 90_000 / 48_000 : ($index === 0 ? $time : null);
            $head = match (true) {
                $stream < 0x100 => '',
                $mode === 4 => chr($stream & 0xFF)."\1\0\4\0".chr($channels - 1)."\x80",
                default => chr($stream & 0xFF).($index === 0 ? "\1\0\1" : "\0\0\0"),
            };
            $this->pack($stream < 0x100 ? $stream : 0xBD, $head.$part, $moment === null ? null : (int) round($moment), $time);
        }
    }

    private function pack(int $stream, string $data, ?int $time, int $clock): void
    {
        $times = $time === null ? '' : chr(0x21 | $time >> 30 << 1).pack('n', ($time >> 15 & 0x7FFF) << 1 | 1).pack('n',
            ($time & 0x7FFF) << 1
            | 1);
        $body = "\x81".($time === null ? "\0" : "\x80").chr(strlen($times)).$times.$data;
        $pack = self::packHead($clock)."\0\0\1".chr($stream).pack('n', strlen($body)).$body;
        $rest = self::SECTOR - strlen($pack);
        if ($rest > 0 && $rest < 7) {
            // Too little for a packet of its own: the head is stuffed.
            $body = "\x81".($time === null ? "\0" : "\x80").chr(strlen($times) + $rest).$times.str_repeat("\xFF", $rest).$data;
            $pack = self::packHead($clock)."\0\0\1".chr($stream).pack('n', strlen($body)).$body;
        } elseif ($rest > 0) {
            $pack .= "\0\0\1\xBE".pack('n', $rest - 6).str_repeat("\xFF", $rest - 6);
        }
        $this->vob .= $pack;
    }

    private static function packHead(int $clock): string
    {
        return "\0\0\1\xBA".chr(0x44 | ($clock >> 30 & 7) << 3 | $clock >> 28 & 3).chr($clock >> 20 & 0xFF)
            .chr(($clock >> 15 & 0x1F) << 3 | 4 | $clock >> 13 & 3).chr($clock >> 5 & 0xFF).chr(($clock & 0x1F) << 3 | 4)."\1\1\x89\xC3\xF8";
    }

    private static function navigation(int $sector, int $rest, int $begins, int $ends, int $vob): string
    {
        $head = self::packHead($begins)."\0\0\1\xBB\0\x12\x80\xC4\xE1\x04\xE1\x7F\xB9\xE0\xE8\xB8\xC0\x20\xBD\xE0\x3A\xBF\xE0\2";
        $control = pack('N', $sector)."\0\0\0\0".pack('N', 0).pack('NNN', $begins, $ends, 0);
        $search = pack('NNNNNN', $begins, $sector, $rest, 0, 0, 0).pack('nCC', $vob, 0, 1);

        return $head."\0\0\1\xBF\x03\xD4\0".str_pad($control, 0x3D3, "\0")."\0\0\1\xBF\x03\xFA\1".str_pad($search, 0x3F9, "\0");
    }

    private function mainTables(int $setSectors): string
    {
        $titles = '';
        foreach ($this->titles as $index => $cells) {
            $chapters = count(array_filter($cells, fn (DiscCellParts $cell): bool => $cell->begins));
            $angles = array_filter($cells, fn (DiscCellParts $cell): bool => $cell->angle !== null) === [] ? 1 : 2;
            $titles .= chr(0x3C).chr($angles).pack('n', $chapters)."\0\0\1".chr($index + 1).pack('N', 4);
        }
        $table = pack('nnN', count($this->titles), 0, 8 + strlen($titles) - 1).$titles;
        $head = self::put('DVDVIDEO-VMG', [0x0C => pack('N', 3), 0x1C => pack('N', 1), 0x20 => "\0\x11", 0x26 => pack('nnC', 1, 1, 1),
            0x3E => pack('n', 1), 0x40 => 'OCTAVOX', 0x80 => pack('N', 0x3FF), 0xC4 => pack('N', 1)], self::SECTOR);

        return $head.str_pad($table, self::SECTOR, "\0");
    }

    private function setTables(): string
    {
        [$chapters, $chains, $addresses] = [$this->chapterTable(), $this->chainTable(), $this->addressTable()];
        $sectors = fn (string $table): int => intdiv(strlen($table), self::SECTOR);
        $attributes = '';
        foreach ($this->sounds as [$mode, , $channels, $language, $extension]) {
            $attributes .= chr($mode << 5 | ($language === '' ? 0 : 4)).chr($channels - 1).($language === '' ? "\0\0" : $language)."\0"
                .chr($extension)."\0\0";
        }
        $length = 1 + $sectors($chapters) + $sectors($chains) + $sectors($addresses);
        $head = self::put(TitleSet::HEAD, [0x0C => pack('N', 2 * $length + intdiv(strlen($this->vob), self::SECTOR) - 1),
            0x1C => pack('N', $length - 1), 0x20 => "\0\x11", 0x80 => pack('N', 0x3D7), 0xC4 => pack('N', $length),
            0xC8 => pack('N', 1), 0xCC => pack('N', 1 + $sectors($chapters)), 0xE0 => pack('N',
                1 + $sectors($chapters) + $sectors($chains)),
            // MPEG-2, 625 lines, 4:3, 352 by 288
            0x200 => "\x53\x18", 0x202 => pack('n', count($this->sounds)).$attributes], self::SECTOR);

        return $head.$chapters.$chains.$addresses;
    }

    private function chapterTable(): string
    {
        $entries = $offsets = '';
        foreach ($this->titles as $index => $cells) {
            $offsets .= pack('N', 8 + 4 * count($this->titles) + strlen($entries));
            for ($program = 1; $program <= count(array_filter($cells, fn (DiscCellParts $cell): bool => $cell->begins)); $program++) {
                $entries .= pack('nn', $index + 1, $program);
            }
        }

        return self::sectors(pack('nnN', count($this->titles), 0, 8 + strlen($offsets.$entries) - 1).$offsets.$entries);
    }

    private function chainTable(): string
    {
        $chains = $pointers = '';
        foreach ($this->cells as $index => $cells) {
            $pointers .= chr(0x80 | $index + 1)."\0\0\0".pack('N', 8 + 8 * count($this->cells) + strlen($chains));
            $chains .= $this->chain($cells);
        }

        return self::sectors(pack('nnN', count($this->cells), 0, 8 + strlen($pointers.$chains) - 1).$pointers.$chains);
    }

    /** @param  list<array{first: int, last: int, unit: int, vob: int, angle: int, parts: DiscCellParts}>  $cells */
    private function chain(array $cells): string
    {
        $map = $playback = $positions = $control = '';
        $ticks = 0;
        foreach ($cells as $index => $cell) {
            $isMain = $cell['angle'] !== 0xD0;
            $map .= $isMain && $cell['parts']->begins ? chr($index + 1) : '';
            $ticks += $isMain ? $cell['parts']->ticks() : 0;
            $playback .= chr($cell['angle'] | ($cell['parts']->clock === null ? 8 : 2) | ($cell['angle'] === 0 ? 0 : 4))."\0\0\0"
                .self::time($cell['parts']->ticks()).pack('NNNN', $cell['first'], 0, $cell['unit'], $cell['last']);
            $positions .= pack('nCC', $cell['vob'], 0, 1);
        }
        foreach ($this->sounds as [, $stream]) {
            $control .= chr(0x80 | $stream & 7)."\0";
        }
        $programs = strlen($map);
        $map .= str_repeat("\0", -strlen($map) & 3);

        return self::put("\0\0".chr($programs).chr(count($cells)).self::time($ticks), [0x0C => $control, 0xE6 => pack('nnn', 0xEC,
            0xEC + strlen($map), 0xEC + strlen($map.$playback))], 0xEC).$map.$playback.$positions;
    }

    private function addressTable(): string
    {
        $pieces = $this->pieces;
        sort($pieces);
        $entries = implode('', array_map(fn (array $piece): string => pack('nCCNN', $piece[0], 1, 0, $piece[1], $piece[2]), $pieces));

        return self::sectors(pack('nnN', count(array_unique(array_column($pieces, 0))), 0, 8 + strlen($entries) - 1).$entries);
    }

    private static function time(int $ticks): string
    {
        $digits = fn (int $number): int => intdiv($number, 10) << 4 | $number % 10;
        $seconds = intdiv($ticks, 90_000);

        return chr($digits(intdiv($seconds, 3600))).chr($digits(intdiv($seconds, 60) % 60)).chr($digits($seconds % 60))
            .chr(0x40 | $digits(intdiv($ticks % 90_000, 3600)));
    }

    /** @param  array<int, string>  $fields */
    private static function put(string $begin, array $fields, int $size): string
    {
        $bytes = str_pad($begin, $size, "\0");
        foreach ($fields as $at => $field) {
            $bytes = substr_replace($bytes, $field, $at, strlen($field));
        }

        return $bytes;
    }

    private static function sectors(string $table): string
    {
        return $table.str_repeat("\0", -strlen($table) & self::SECTOR - 1);
    }
}
