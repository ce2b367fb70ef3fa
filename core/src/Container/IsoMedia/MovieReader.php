<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\IndexMissing;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Failure;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Findings;
use Octavox\Core\Media\Severity;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Tags;

/** Reads the index of a movie: `moov`, and every `moof` where it is in fragments. */
final class MovieReader
{
    private const MOST_TRACKS = 256;

    /** Bytes of a compressed index, once it is not. */
    private const MOST_INFLATED = 64 * 1024 * 1024;

    private BoxReader $boxes;

    public function __construct(private readonly ByteSource $bytes)
    {
        $this->boxes = new BoxReader($bytes);
    }

    /**
     * @throws Failure
     */
    public function read(): Demuxer
    {
        $brand = '';
        $movie = null;
        $fragments = [];
        $cut = $isLast = false;
        foreach ($this->boxes->top() as $box) {
            $cut = $cut || $box->cut;
            $isLast = $isLast || $box->type === 'mdat' && $movie === null;
            if ($box->type === 'ftyp' && $box->bodyLength() >= 4) {
                $brand = $this->bytes->read($box->bodyAt, 4);
            } elseif ($box->type === 'moov' && $movie === null) {
                if ($box->cut) {
                    throw IndexMissing::at($this->bytes->name());
                }
                $movie = $box;
            } elseif ($box->type === 'moof' && ! $box->cut) {
                $fragments[] = $box;
            }
        }
        if ($movie === null) {
            throw $fragments === [] ? IndexMissing::at($this->bytes->name()) : IndexMissing::segment($this->bytes->name());
        }
        [$movie, $index] = $this->index($movie);
        $tables = $this->tables($movie, $fragments);
        if ($tables === []) {
            throw NoTracks::at($this->bytes->name());
        }
        foreach ($tables as $table) {
            $table->resolveFormat($this->bytes);
        }
        $tags = $this->tags($movie);
        $titles = $this->titleTracks($movie);
        $tracks = array_map(fn (TrackTable $table): Track => $table->track($tags->gapless,
            in_array($table->identity, $titles, true)), $tables);

        $file = new OpenedBytes(self::containerName($brand, $tracks), $this->bytes, $tags->tags, $this->diagnostics($tables, $cut));

        return new Movie($file, $tracks, $tables, $this->chapters($titles, $tables), $index, ! $isLast);
    }

    /**
     * The movie's index, and where it stands: some movies have it compressed (QuickTime File Format Specification, "Compressed Movie
     * Resources").
     *
     * @return array{Box, ByteSource}
     *
     * @throws Failure
     */
    private function index(Box $movie): array
    {
        $compressed = $this->boxes->find($movie, 'cmov');
        $method = $compressed === null ? null : $this->boxes->find($compressed, 'dcom');
        $data = $compressed === null ? null : $this->boxes->find($compressed, 'cmvd');
        if ($method === null || $data === null || $data->bodyLength() < 5 || $this->boxes->head($method, 4)->take(4) !== 'zlib') {
            return [$movie, $this->bytes];
        }
        $inflated = @zlib_decode(substr($this->boxes->contentBytes($data), 4), self::MOST_INFLATED);
        if ($inflated === false || $inflated === '') {
            throw IndexMissing::at($this->bytes->name());
        }
        $index = new MemoryBytes($inflated, $this->bytes->name());
        $this->boxes = new BoxReader($index);
        foreach ($this->boxes->top() as $box) {
            if ($box->type === 'moov') {
                return [$box, $index];
            }
        }

        throw IndexMissing::at($this->bytes->name());
    }

    /**
     * @param  list<Box>  $fragments
     * @return list<TrackTable>
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function tables(Box $movie, array $fragments): array
    {
        $header = $this->boxes->find($movie, 'mvhd');
        $timescale = $header === null ? 1000 : $this->timescale($header);
        $tables = [];
        $defaults = [];
        foreach ($this->boxes->children($movie) as $child) {
            if ($child->type === 'trak') {
                if (count($tables) >= self::MOST_TRACKS) {
                    throw BrokenStructure::at($this->bytes->name(), $child->at, 'it has more tracks than any recording');
                }
                $table = (new TrackReader($this->boxes, $child, $timescale, count($tables) + 1, $this->bytes->size()))->read();
                if ($table !== null) {
                    $tables[] = $table;
                }
            } elseif ($child->type === 'mvex') {
                foreach ($this->boxes->children($child) as $extends) {
                    if ($extends->type === 'trex') {
                        $cursor = $this->boxes->content($extends)->skip(4);
                        $track = $cursor->u32be();
                        $cursor->skip(4);
                        $defaults[$track] = new FragmentDefaults($cursor->u32be(), $cursor->u32be());
                    }
                }
            }
        }
        if ($fragments !== []) {
            $reader = new FragmentReader($this->boxes, $tables, $defaults);
            foreach ($fragments as $fragment) {
                $reader->read($fragment);
            }
        }

        return $tables;
    }

    /**
     * Identities of the tracks that others refer to for their chapters: QuickTime File Format Specification, "Chapter Lists".
     *
     * @return list<int>
     *
     * @throws BytesMissing
     * @throws BrokenStructure
     * @throws FileUnreadable
     */
    private function titleTracks(Box $movie): array
    {
        $identities = [];
        foreach ($this->boxes->children($movie) as $child) {
            $reference = $child->type === 'trak' ? $this->boxes->find($child, 'tref/chap') : null;
            if ($reference !== null && $reference->bodyLength() >= 4) {
                $identities[] = $this->boxes->head($reference, 4)->u32be();
            }
        }

        return $identities;
    }

    /**
     * @param  list<int>  $titles  identities of the tracks that name them
     * @param  list<TrackTable>  $tables
     * @return list<Chapter>
     *
     * @throws FileUnreadable
     */
    private function chapters(array $titles, array $tables): array
    {
        try {
            foreach ($tables as $table) {
                if (in_array($table->identity, $titles, true)) {
                    return $this->titles($table);
                }
            }
        } catch (BytesMissing|BrokenStructure) {
            // Chapters that cannot be read are none; the sound is not worse for it.
            return [];
        }

        return [];
    }

    /**
     * @return list<Chapter>
     *
     * @throws BytesMissing
     * @throws BrokenStructure
     * @throws FileUnreadable
     */
    private function titles(TrackTable $table): array
    {
        $chapters = [];
        foreach ($table->samples->walk(0, PHP_INT_MAX >> 2, 0) as [$at, $size, $tick]) {
            $bytes = $size >= 2 && $size < 65_536 ? $this->bytes->read($at, $size) : "\0\0";
            $length = min(strlen($bytes) - 2, ord($bytes[0]) << 8 | ord($bytes[1]));
            $title = mb_scrub(substr($bytes, 2, $length), 'UTF-8');
            // A stretch before the first chapter has no name.
            if ($title !== '' || $chapters !== []) {
                $chapters[] = new Chapter($tick / $table->timescale, $title);
            }
            if (count($chapters) >= 10_000) {
                break;
            }
        }

        return $chapters;
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function timescale(Box $header): int
    {
        $cursor = $this->boxes->content($header);
        $version = $cursor->u8();

        return max(1, $cursor->skip($version === 1 ? 19 : 11)->u32be());
    }

    /**
     * When the movie says that it was made, in seconds since the start of 1970; 0 or less where it does not say.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function created(Box $movie): int
    {
        $header = $this->boxes->find($movie, 'mvhd');
        $cursor = $header === null ? null : $this->boxes->content($header);
        $seconds = $cursor === null ? 0 : ($cursor->u8() === 1 ? $cursor->skip(3)->u64be() : $cursor->skip(3)->u32be());

        return $seconds - MovieStream::EPOCH;
    }

    /** @throws FileUnreadable */
    private function tags(Box $movie): MovieTags
    {
        try {
            $tags = (new ItemListReader($this->boxes))->read($movie);

            return new MovieTags($tags->tags->withRecordedAt($this->created($movie)), $tags->gapless);
        } catch (BytesMissing|BrokenStructure) {
            return new MovieTags(Tags::none(), null);
        }
    }

    /**
     * @param  list<TrackTable>  $tables
     * @return list<Diagnostic>
     *
     * @throws Failure
     */
    private function diagnostics(array $tables, bool $cut): array
    {
        foreach ($tables as $table) {
            if ($table->kind() === TrackKind::Sound && $table->isCutShort()) {
                [$announced, $there] = $table->seconds();

                return [new Diagnostic(new Findings\CutShort(announced: $announced, there: $there, unit: 'seconds'), $there > 0
                    ? Severity::Warn : Severity::Stop)];
            }
        }

        return $cut ? [new Diagnostic(new Findings\EndsWithinPart, Severity::Note)] : [];
    }

    /** @param  list<Track>  $tracks */
    private static function containerName(string $brand, array $tracks): string
    {
        return match (true) {
            $brand === 'qt  ', $brand === '' => 'mov',
            str_starts_with($brand, 'M4A'), str_starts_with($brand, 'M4B') => 'm4a',
            str_starts_with($brand, '3g') => '3gp',
            default => 'mp4',
        };
    }
}
