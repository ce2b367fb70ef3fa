<?php

declare(strict_types=1);

namespace Octavox\Core\Testing;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** Writes MP4, M4A and QuickTime movies: tracks interleaved in half seconds, the index before or after them. */
final class MovieWriter
{
    /** Seconds from 1904-01-01, where movie times begin: ISO/IEC 14496-12, 8.2.2. Results do not tell when they were made. */
    private const NO_DATE = 0;

    private const IDENTITY = [0x10000, 0, 0, 0, 0x10000, 0, 0, 0, 0x40000000];

    /** @param  non-empty-list<WriterTrack>  $tracks */
    public function __construct(private readonly string $brand, private readonly array $tracks, private readonly Tags $tags,
        private readonly int $timescale) {}

    public function write(ByteSink $sink, bool $indexFirst = true): void
    {
        $type = $this->box('ftyp',
            str_pad($this->brand, 4).pack('N', 0x200).str_pad($this->brand, 4).($this->brand === 'qt  ' ? '' : 'isommp42'));
        [$chunks, $length] = $this->interleave();
        $header = $length + 16 > 0xFFFFFFFF ? 16 : 8;
        $index = '';
        $start = strlen($type) + $header;
        if ($indexFirst) {
            // The index's own length does not depend on the numbers in it.
            $start += strlen($this->index($chunks, $start));
        }
        $index = $this->index($chunks, $start);
        $sink->write($type.($indexFirst ? $index : ''));
        $sink->write($header === 16 ? pack('N', 1).'mdat'.pack('J', $length + 16) : pack('N', $length + 8).'mdat');
        foreach ($chunks as [$track, $from, $count]) {
            foreach (array_slice($this->tracks[$track]->packets, $from, $count) as $packet) {
                $sink->write($packet);
            }
        }
        if (! $indexFirst) {
            $sink->write($index);
        }
    }

    /**
     * @return array{list<array{int, int, int, int}>, int} chunks (track, first packet, packets, offset) in the order of the file, and the
     * length of all
     */
    private function interleave(): array
    {
        $chunks = [];
        $at = 0;
        $next = array_fill(0, count($this->tracks), 0);
        for ($half = 1; array_filter($next, fn (int $packet, int $track): bool => $packet < count($this->tracks[$track]->packets),
            ARRAY_FILTER_USE_BOTH) !== []; $half++) {
            foreach ($this->tracks as $index => $track) {
                $until = min(count($track->packets), intdiv($half * $track->timescale, 2 * $track->ticksPerPacket) + 1);
                $count = $until - $next[$index];
                if ($count > 0) {
                    $chunks[] = [$index, $next[$index], $count, $at];
                    $at += array_sum(array_map(strlen(...), array_slice($track->packets, $next[$index], $count)));
                    $next[$index] = $until;
                }
            }
        }

        return [$chunks, $at];
    }

    /** @param  list<array{int, int, int, int}>  $chunks */
    private function index(array $chunks, int $start): string
    {
        $longest = 0;
        $body = '';
        foreach ($this->tracks as $number => $track) {
            $own = array_values(array_filter($chunks, fn (array $chunk): bool => $chunk[0] === $number));
            $body .= $this->track($number + 1, $track, $own, $start);
            $longest = max($longest, $this->presented($track));
        }
        $header = $this->full('mvhd', 0, 0, pack('N4', self::NO_DATE, self::NO_DATE, $this->timescale, $longest).pack('Nn', 0x10000,
            0x100).str_repeat("\0", 10).pack('N9', ...self::IDENTITY).str_repeat("\0", 24).pack('N', count($this->tracks) + 1));

        return $this->box('moov', $header.$body.$this->userData());
    }

    private function presented(WriterTrack $track): int
    {
        return $track->lateTicks + (int) round($track->presentedTicks * $this->timescale / $track->timescale);
    }

    /** @param  list<array{int, int, int, int}>  $chunks */
    private function track(int $identity, WriterTrack $track, array $chunks, int $start): string
    {
        $header = $this->full('tkhd', 0, 7,
            pack('N5', self::NO_DATE, self::NO_DATE, $identity, 0, $this->presented($track)).str_repeat("\0", 8).pack('n4', 0, 0,
                $track->isSound() ? 0x100 : 0, 0).pack('N9', ...self::IDENTITY).pack('N2', $track->width << 16, $track->height << 16));
        $edits = $track->lateTicks > 0 ? [pack('NNN', $track->lateTicks, 0xFFFFFFFF, 0x10000)] : [];
        $edits[] = pack('NNN', $this->presented($track) - $track->lateTicks, $track->mediaTime, 0x10000);
        $language = array_reduce(str_split($track->language), fn (int $code, string $letter): int => $code << 5 | ord($letter) - 0x60, 0);
        $media = $this->full('mdhd', 0, 0, pack('N4nn', self::NO_DATE, self::NO_DATE, $track->timescale, $track->mediaTicks, $language, 0))
            .$this->full('hdlr', 0, 0,
                ($this->brand === 'qt  ' ? 'mhlr' : "\0\0\0\0").($track->isSound() ? 'soun' : 'vide').str_repeat("\0",
                    12).($this->brand === 'qt  ' ? "\0" : "Octavox\0"));
        $information = ($track->isSound() ? $this->full('smhd', 0, 0, "\0\0\0\0") : $this->full('vmhd', 0, 1, str_repeat("\0", 8)))
            .($this->brand === 'qt  ' ? $this->full('hdlr', 0, 0, 'dhlralis'.str_repeat("\0", 12)."\0") : '')
            .$this->box('dinf', $this->full('dref', 0, 0, pack('N', 1).$this->full($this->brand === 'qt  ' ? 'alis' : 'url ', 0, 1, '')))
            .$this->box('stbl', $this->table($track, $chunks, $start));

        return $this->box('trak',
            $header.$this->box('edts', $this->full('elst', 0, 0, pack('N', count($edits)).implode('', $edits))).$this->box('mdia',
                $media.$this->box('minf', $information)));
    }

    /** @param  list<array{int, int, int, int}>  $chunks */
    private function table(WriterTrack $track, array $chunks, int $start): string
    {
        $frames = $track->framesPerPacket();
        $count = array_sum($frames);
        $toChunk = '';
        $entries = 0;
        $before = -1;
        foreach ($chunks as $index => [, $from, $packets]) {
            $samples = array_sum(array_slice($frames, $from, $packets));
            if ($samples !== $before) {
                $toChunk .= pack('N3', $index + 1, $samples, 1);
                $entries++;
                $before = $samples;
            }
        }
        $keys = $track->keyPackets;
        $offsets = array_map(fn (array $chunk): int => $start + $chunk[3], $chunks);
        $long = $offsets !== [] && max($offsets) > 0xFFFFFFFF;

        return $this->full('stsd', 0, 0, pack('N', 1).$track->entry)
            .$this->full('stts', 0, 0, pack('N3', 1, $count, $track->sampleBytes > 0 ? 1 : $track->ticksPerPacket))
            .($keys === null ? ''
                : $this->full('stss', 0, 0, pack('N*', count($keys), ...array_map(fn (int $key): int => $key + 1, $keys))))
            .$this->full('stsc', 0, 0, pack('N', $entries).$toChunk)
            .$this->full('stsz', 0, 0, $track->sampleBytes > 0 ? pack('N2', $track->sampleBytes, $count)
                : pack('N2', 0, $count).pack('N*', ...array_map(strlen(...), $track->packets)))
            .$this->full($long ? 'co64' : 'stco', 0, 0, pack('N', count($offsets)).pack($long ? 'J*' : 'N*', ...$offsets));
    }

    private function userData(): string
    {
        $items = '';
        foreach (TagField::cases() as $field) {
            $value = $this->tags->get($field);
            $item = $field->item();
            if ($value !== null && $item !== null && $field !== TagField::Track && $field !== TagField::Disc) {
                $items .= $this->box($item, $this->box('data', pack('N2', 1, 0).$value));
            }
        }
        if ($this->tags->cover !== null) {
            $items .= $this->box('covr',
                $this->box('data', pack('N2', $this->tags->cover->type === 'image/png' ? 14 : 13, 0).$this->tags->cover->bytes));
        }
        if ($items === '') {
            return '';
        }
        $handler = $this->full('hdlr', 0, 0, "\0\0\0\0".'mdirappl'.str_repeat("\0", 9));

        return $this->box('udta', $this->full('meta', 0, 0, $handler.$this->box('ilst', $items)));
    }

    private function full(string $type, int $version, int $flags, string $body): string
    {
        return $this->box($type, pack('N', $version << 24 | $flags).$body);
    }

    private function box(string $type, string $body): string
    {
        return pack('N', 8 + strlen($body)).$type.$body;
    }
}
