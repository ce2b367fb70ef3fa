<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

/**
 * One track that is being written: its description, and the tables of its samples as they grow, packed so that hours take little memory.
 */
final class StreamTrack
{
    /** @var list<array{int, int}> durations in runs: count, ticks */
    private array $durations = [];

    /** @var list<array{int, int}> composition offsets in runs: count, ticks */
    private array $offsets = [];

    private string $sizes = '';

    /** Numbers of the samples that are keys, once there is one that is none. */
    private string $keys = '';

    private string $chunks = '';

    private string $perChunk = '';

    private int $count = 0;

    private int $chunkStart = -1;

    private int $chunkSamples = 0;

    private int $lastPerChunk = -1;

    private int $chunkCount = 0;

    private bool $allKeys = true;

    private int $ticks = 0;

    private int $chunkTick = 0;

    /** @var list<Edit> ticks of the movie, and of the media */
    private array $edits = [];

    /**
     * @param  string  $handler  `soun`, `vide` or `text`
     * @param  string  $entry  the sample entry, a whole box
     * @param  int  $sampleBytes  bytes of one sample where all are equal and small (PCM), else 0
     * @param  int  $width  in picture elements, as presented
     * @param  array<string, int>  $references  identities of other tracks, by what they are to this one: `chap`, `tmcd`
     * @param  bool  $hidden  whether it is not shown by itself
     * @param  string  $header  the media header, a whole box; empty for what is usual
     */
    public function __construct(
        public readonly string $handler,
        private string $entry,
        public readonly int $timescale,
        public readonly int $sampleBytes = 0,
        public readonly int $width = 0,
        public readonly int $height = 0,
        public readonly string $language = 'und',
        public readonly string $matrix = '',
        public readonly string $name = '',
        public readonly array $references = [],
        public readonly bool $hidden = false,
        public readonly string $header = '',
    ) {}

    public function entry(): string
    {
        return $this->entry;
    }

    /** Once something is known of all samples that the description tells; it is as long as the one before. */
    public function describe(string $entry): void
    {
        $this->entry = $entry;
    }

    /**
     * @param  int  $at  where the data stands in the file
     * @param  int  $ticks  that it lasts, of the track's own timescale
     * @param  int  $offset  ticks from decoding to presentation
     */
    public function add(int $at, int $bytes, int $ticks, int $offset, bool $key): void
    {
        if ($this->chunkStart < 0) {
            $this->chunkStart = $at;
            $this->chunkTick = $this->ticks;
        }
        $samples = $this->sampleBytes > 0 ? intdiv($bytes, $this->sampleBytes) : 1;
        if ($this->sampleBytes === 0) {
            $this->sizes .= pack('N', $bytes);
            $this->run($this->durations, 1, $ticks);
            $this->run($this->offsets, 1, $offset);
            if (! $key && $this->allKeys) {
                $this->allKeys = false;
                $this->keys = self::numbered(1, $this->count);
            } elseif ($key && ! $this->allKeys) {
                $this->keys .= pack('N', $this->count + 1);
            }
        }
        $this->count += $samples;
        $this->chunkSamples += $samples;
        $this->ticks += $ticks;
    }

    /**
     * Many that stand together, each of them a key.
     *
     * @param  string  $sizes  bytes of each, 32 bits, most significant byte first
     * @param  int  $ticks  that one lasts
     */
    public function addRun(int $at, string $sizes, int $ticks): void
    {
        if ($this->chunkStart < 0) {
            $this->chunkStart = $at;
            $this->chunkTick = $this->ticks;
        }
        $count = intdiv(strlen($sizes), 4);
        $this->sizes .= $sizes;
        if (! $this->allKeys) {
            $this->keys .= self::numbered($this->count + 1, $count);
        }
        $this->run($this->durations, $count, $ticks);
        $this->run($this->offsets, $count, 0);
        $this->count += $count;
        $this->chunkSamples += $count;
        $this->ticks += $count * $ticks;
    }

    /** Seconds since the chunk began. */
    public function chunkSeconds(): float
    {
        return $this->chunkStart < 0 ? 0.0 : ($this->ticks - $this->chunkTick) / $this->timescale;
    }

    public function endChunk(): void
    {
        if ($this->chunkStart < 0) {
            return;
        }
        $this->chunkCount++;
        $this->chunks .= pack('J', $this->chunkStart);
        if ($this->chunkSamples !== $this->lastPerChunk) {
            $this->perChunk .= pack('N3', $this->chunkCount, $this->chunkSamples, 1);
            $this->lastPerChunk = $this->chunkSamples;
        }
        $this->chunkStart = -1;
        $this->chunkSamples = 0;
    }

    /** @param  list<Edit>  $edits */
    public function present(array $edits): void
    {
        $this->edits = $edits;
    }

    public function mediaTicks(): int
    {
        return $this->ticks;
    }

    /** Ticks of the movie that it is presented for. */
    public function presented(int $movieTimescale): int
    {
        return $this->edits === [] ? (int) round($this->ticks * $movieTimescale / $this->timescale)
            : array_sum(array_map(fn (Edit $edit): int => $edit->duration, $this->edits));
    }

    /** The `trak` box: ISO/IEC 14496-12, 8.3 to 8.7. */
    public function box(int $identity, int $movieTimescale, bool $quickTime): string
    {
        $sound = $this->handler === 'soun';
        $presented = $this->presented($movieTimescale);
        $matrix = $this->matrix !== '' ? $this->matrix : pack('N9', 0x10000, 0, 0, 0, 0x10000, 0, 0, 0, 0x40000000);
        $header = Boxes::full('tkhd', 1, $this->hidden ? 2 : 7,
            pack('J2N2J', 0, 0, $identity, 0, $presented).str_repeat("\0", 8).pack('n4', 0, 0, $sound ? 0x100 : 0, 0).$matrix.pack('N2',
                $this->width << 16, $this->height << 16));
        $edits = implode('', array_map(fn (Edit $edit): string => pack('JJN', $edit->duration, $edit->mediaTime, 0x10000), $this->edits));
        $letters = preg_match('/^[a-z]{3}$/', $this->language) === 1 ? $this->language : 'und';
        $language = array_reduce(str_split($letters), fn (int $code, string $letter): int => $code << 5 | ord($letter) - 0x60, 0);
        $media = Boxes::full('mdhd', 1, 0, pack('J2NJnn', 0, 0, $this->timescale, $this->ticks, $language, 0))
            .Boxes::full('hdlr', 0, 0, ($quickTime ? 'mhlr' : "\0\0\0\0").$this->handler.str_repeat("\0",
                12).($quickTime ? chr(min(255, strlen($this->name))).substr($this->name, 0, 255) : $this->name."\0"));
        $kind = $this->header !== '' ? $this->header : match ($this->handler) {
            'soun' => Boxes::full('smhd', 0, 0, "\0\0\0\0"),
            'vide' => Boxes::full('vmhd', 0, 1, str_repeat("\0", 8)),
            default => Boxes::box('gmhd', Boxes::full('gmin', 0, 0, pack('n6', 0x40, 0x8000, 0x8000, 0x8000, 0, 0)).Boxes::box('text',
                pack('n2N7', 1, 0, 0, 0, 0, 1, 0, 0, 0).pack('N', 0x4000)."\0\0")),
        };
        $information = $kind.($quickTime ? Boxes::full('hdlr', 0, 0, 'dhlralis'.str_repeat("\0", 12)."\0") : '')
            .Boxes::box('dinf', Boxes::full('dref', 0, 0, pack('N', 1).Boxes::full($quickTime ? 'alis' : 'url ', 0, 1, '')))
            .Boxes::box('stbl', $this->table());

        $references = implode('', array_map(fn (string $type, int $other): string => Boxes::box($type, pack('N', $other)),
            array_keys($this->references), $this->references));
        $references = $references === '' ? '' : Boxes::box('tref', $references);

        return Boxes::box('trak',
            $header.$references.($edits === '' ? '' : Boxes::box('edts', Boxes::full('elst', 1, 0, pack('N', count($this->edits)).$edits)))
            .Boxes::box('mdia', $media.Boxes::box('minf', $information)));
    }

    private function table(): string
    {
        $fixed = $this->sampleBytes > 0;
        $durations = $fixed ? [[$this->count, 1]] : $this->durations;
        $offsets = array_filter($this->offsets, fn (array $run): bool => $run[1] !== 0) === [] ? ''
            : Boxes::full('ctts', min(0, ...array_column($this->offsets, 1)) < 0 ? 1 : 0, 0, self::runs($this->offsets));
        $long = strlen($this->chunks) >= 8 && substr($this->chunks, -8, 4) !== "\0\0\0\0";
        $places = $long ? $this->chunks : pack('N*', ...(unpack('J*', $this->chunks) ?: []));

        return Boxes::full('stsd', 0, 0, pack('N', 1).$this->entry)
            .Boxes::full('stts', 0, 0, self::runs($durations))
            .$offsets
            .($fixed || $this->allKeys ? '' : Boxes::full('stss', 0, 0, pack('N', intdiv(strlen($this->keys), 4)).$this->keys))
            .Boxes::full('stsc', 0, 0, pack('N', intdiv(strlen($this->perChunk), 12)).$this->perChunk)
            .Boxes::full('stsz', 0, 0, $fixed ? pack('N2', $this->sampleBytes, $this->count) : pack('N2', 0, $this->count).$this->sizes)
            .Boxes::full($long ? 'co64' : 'stco', 0, 0, pack('N', $this->chunkCount).$places);
    }

    private static function numbered(int $first, int $count): string
    {
        return $count === 0 ? '' : pack('N*', ...range($first, $first + $count - 1));
    }

    /** @param  list<array{int, int}>  $runs */
    private static function runs(array $runs): string
    {
        $bytes = '';
        foreach ($runs as [$count, $value]) {
            $bytes .= pack('N2', $count, $value & 0xFFFFFFFF);
        }

        return pack('N', count($runs)).$bytes;
    }

    /** @param  list<array{int, int}>  $runs */
    private function run(array &$runs, int $count, int $value): void
    {
        $last = count($runs) - 1;
        if ($last >= 0 && $runs[$last][1] === $value) {
            $runs[$last][0] += $count;
        } else {
            $runs[] = [$count, $value];
        }
    }
}
