<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\LanguageCode;

/**
 * The tables of one title set (VTS_nn_0.IFO): which program chains make up a title, which cells these play, where they lie, and what sound
 * goes with them. The layout is that of DVD Specifications for Read-Only Disc, part 3 (video), as it is generally known; numbers are
 * big-endian.
 */
final class TitleSet
{
    public const HEAD = 'DVDVIDEO-VTS';

    private const SECTOR = 2048;

    /** Places of pointers to tables, in sectors of the file. */
    private const CHAPTERS = 0xC8;

    private const CHAINS = 0xCC;

    private const CELL_ADDRESSES = 0xE0;

    /** Sound: how many streams, and eight bytes about each. */
    private const SOUNDS = 0x202;

    private const MOST_SOUNDS = 8;

    /** What a table may hold: more are not on any disc. */
    private const MOST_CHAPTERS = 999;

    private const MOST_CELLS = 255;

    private const MOST_PIECES = 20_000;

    private const MOST_TABLE = 4 << 20;

    /** Streams by coding mode: ISO/IEC 13818-1, table 2-22, and the sub-streams of private stream 1. */
    private const STREAMS = [0 => [0x180, Codec::Ac3], 2 => [0xC0, Codec::Mp2], 3 => [0xC0, Codec::Mp2], 4 => [0x1A0, Codec::Pcm],
        6 => [0x188, Codec::Dts]];

    /** What the extension of the language code says. */
    private const PURPOSES = [2 => 'For people who see little', 3 => 'Commentary', 4 => 'Second commentary'];

    private function __construct(private readonly string $bytes, private readonly string $head) {}

    /**
     * Null where the bytes are no such table.
     *
     * @throws FileUnreadable
     * @throws BytesMissing
     */
    public static function open(ByteSource $file): ?self
    {
        $bytes = $file->read(0, min($file->size(), self::MOST_TABLE));

        return strlen($bytes) >= self::SECTOR && str_starts_with($bytes, self::HEAD) ? new self($bytes, substr($bytes, 0, self::SECTOR))
            : null;
    }

    /**
     * The cells of a title in the order of playing.
     *
     * @param  int  $title  as the set counts, from 1
     * @return list<DiscCell> empty where the tables do not tell
     */
    public function cells(int $title): array
    {
        $starts = [];
        foreach ($this->chapters($title) as $index => [$chain, $program]) {
            $starts[$chain][$program] ??= $index + 1;
        }
        $cells = [];
        foreach ($starts as $chain => $programs) {
            array_push($cells, ...$this->chain($chain, $programs));
        }

        return $cells;
    }

    /**
     * The sound tracks of a title, in the order in which the disc offers them.
     *
     * @return list<DiscSound>
     */
    public function sounds(int $title): array
    {
        $chain = $this->chapters($title)[0][0] ?? 0;
        $at = $this->chainAt($chain);
        $sounds = [];
        for ($index = 0; $at !== null && $index < min(self::MOST_SOUNDS, $this->half(self::SOUNDS)); $index++) {
            $control = $this->byte($at + 0x0C + 2 * $index);
            $attributes = substr($this->head, self::SOUNDS + 2 + 8 * $index, 8);
            if (($control & 0x80) === 0 || strlen($attributes) < 8) {
                continue;
            }
            $stream = self::STREAMS[ord($attributes[0]) >> 5] ?? null;
            if ($stream === null) {
                continue;
            }
            $isNamed = (ord($attributes[0]) >> 2 & 3) === 1;
            $sounds[] = new DiscSound($stream[0] + ($control & 7), $stream[1], (ord($attributes[1]) & 7) + 1,
                (ord($attributes[1]) >> 4 & 3) === 1 ? 96_000 : 48_000,
                $isNamed ? LanguageCode::letters(substr($attributes, 2, 2)) : null, self::PURPOSES[ord($attributes[5])] ?? '');
        }

        return $sounds;
    }

    /** @return list<array{int, int}> number of the chain and of the program in it, of each chapter */
    private function chapters(int $title): array
    {
        $table = $this->table(self::CHAPTERS);
        if ($table === null || $title < 1 || $title > $this->half($table)) {
            return [];
        }
        $from = $this->number($table + 8 + 4 * ($title - 1));
        $until = $title < $this->half($table) ? $this->number($table + 8 + 4 * $title) : $this->number($table + 4) + 1;
        $chapters = [];
        for ($at = $from; $at + 4 <= $until && count($chapters) < self::MOST_CHAPTERS; $at += 4) {
            [$chain, $program] = [$this->half($table + $at), $this->half($table + $at + 2)];
            if ($chain > 0 && $program > 0) {
                $chapters[] = [$chain, $program];
            }
        }

        return $chapters;
    }

    /**
     * @param  array<int, int>  $programs  the chapter that begins with each program
     * @return list<DiscCell>
     */
    private function chain(int $number, array $programs): array
    {
        $at = $this->chainAt($number);
        if ($at === null) {
            return [];
        }
        $count = min(self::MOST_CELLS, $this->byte($at + 3));
        [$map, $playback, $positions] = [$this->half($at + 0xE6), $this->half($at + 0xE8), $this->half($at + 0xEA)];
        $begins = [];
        foreach ($programs as $program => $chapter) {
            if ($program <= $this->byte($at + 2) && $map > 0) {
                $begins[$this->byte($at + $map + $program - 1)] = $chapter;
            }
        }
        $cells = [];
        $addresses = $this->addresses();
        $pending = null;
        for ($index = 0; $playback > 0 && $index < $count; $index++) {
            $cell = $at + $playback + 24 * $index;
            $pending = $begins[$index + 1] ?? $pending;
            // Of several angles the first is taken; the others are blocks of the same kind that follow it.
            if (($this->byte($cell) >> 4 & 3) === 1 && in_array($this->byte($cell) >> 6, [2, 3], true)) {
                continue;
            }
            $position = $at + $positions + 4 * $index;
            $identity = $positions > 0 ? $this->half($position) << 8 | $this->byte($position + 3) : 0;
            [$first, $last] = [$this->number($cell + 8), $this->number($cell + 20)];
            if ($last < $first || $last === 0xFFFFFFFF) {
                continue;
            }
            // Cells of several angles lie between each other: the table of addresses has the pieces of each.
            $pieces = array_values(array_filter($addresses[$identity] ?? [], fn (array $piece): bool => $piece[0] >= $first
                && $piece[1] <= $last));
            $cells[] = new DiscCell($pieces === [] ? [[$first, $last]] : $pieces, $this->number($cell + 16), $this->duration($cell + 4),
                $pending);
            $pending = null;
        }

        return $cells;
    }

    /** @return array<int, list<array{int, int}>> first and last sectors of the pieces of each cell, by recording and cell */
    private function addresses(): array
    {
        $table = $this->table(self::CELL_ADDRESSES);
        $found = [];
        if ($table === null) {
            return [];
        }
        $until = min($table + $this->number($table + 4) + 1, strlen($this->bytes));
        for ($at = $table + 8, $count = 0; $at + 12 <= $until && $count < self::MOST_PIECES; $at += 12, $count++) {
            [$first, $last] = [$this->number($at + 4), $this->number($at + 8)];
            if ($last >= $first) {
                $found[$this->half($at) << 8 | $this->byte($at + 2)][] = [$first, $last];
            }
        }

        return array_map(function (array $pieces): array {
            sort($pieces);

            return $pieces;
        }, $found);
    }

    /** Where a program chain is described; null where it is not. */
    private function chainAt(int $number): ?int
    {
        $table = $this->table(self::CHAINS);
        if ($table === null || $number < 1 || $number > $this->half($table)) {
            return null;
        }
        $at = $table + $this->number($table + 8 + 8 * ($number - 1) + 4);

        return $at + 0xEC <= strlen($this->bytes) && $at > $table ? $at : null;
    }

    private function table(int $pointer): ?int
    {
        $at = $this->number($pointer) * self::SECTOR;

        return $at > 0 && $at + 8 <= strlen($this->bytes) ? $at : null;
    }

    /** Hours, minutes, seconds and pictures as decimal digits; the upper bits of the last say how many pictures a second has. */
    private function duration(int $at): float
    {
        $digits = fn (int $byte): int => ($byte >> 4) * 10 + ($byte & 15);
        $pictures = $this->byte($at + 3);

        return $digits($this->byte($at)) * 3600 + $digits($this->byte($at + 1)) * 60 + $digits($this->byte($at + 2))
            + $digits($pictures & 0x3F) / ($pictures >> 6 === 1 ? 25 : 30_000 / 1001);
    }

    private function byte(int $at): int
    {
        return ord($this->bytes[$at] ?? "\0");
    }

    private function half(int $at): int
    {
        return $this->byte($at) << 8 | $this->byte($at + 1);
    }

    private function number(int $at): int
    {
        return $this->half($at) << 16 | $this->half($at + 2);
    }
}
