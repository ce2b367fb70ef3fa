<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ogg;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\PacketLengths;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\VideoFormat;
use Octavox\Core\Tag\Tags;

/** Reads the set-up of every logical stream, and the last pages for the length; chained streams become one track. */
final class OggReader
{
    private const MOST_STREAMS = 64;

    /** Positions beyond two days are not believed without counting the packets. */
    private const MOST_SECONDS = 172_800;

    private const MOST_LINKS = 10_000;

    /** Bytes of a file whose pages are all looked at; in a larger one it is looked whether their numbers rise, at so many places. */
    private const WALKED = 8 << 20;

    private const PROBES = 64;

    /** Bytes of a file whose pages tell how much of it each stream takes. */
    private const COUNTED = 2 << 20;

    /** Pages that are looked at for set-up. */
    private const MOST_HEAD_PAGES = 2_000;

    private readonly Window $window;

    public function __construct(private readonly ByteSource $bytes)
    {
        $this->window = new Window($bytes, $bytes->size(), PacketWalk::SPAN);
    }

    /**
     * @throws NoTracks
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function read(): Demuxer
    {
        $size = $this->bytes->size();
        $streams = $this->streams(0, $size);
        $sound = array_values(array_filter($streams, fn (LogicalStream $stream): bool => $stream->audio() !== null));
        if ($streams === []) {
            throw NoTracks::at($this->bytes->name());
        }
        $last = $this->lastPage(0, $size);
        $serials = array_map(fn (LogicalStream $stream): int => $stream->serial, $streams);
        $chained = count($streams) === 1 && $last !== null && (! in_array($last->serial, $serials, true) || $this->beginsAgain($size));
        $tracks = [];
        $links = [];
        $tags = Tags::none();
        $diagnostics = [];
        foreach ($chained ? $sound : $streams as $stream) {
            $audio = $stream->audio();
            $number = count($tracks) + 1;
            if ($audio === null) {
                if ($stream->isPicture()) {
                    $tracks[] = Track::picture($number, new VideoFormat(Codec::Unknown, 'Theora', 0, 0, 0.0, 0.0, 0.0), 0);
                }

                continue;
            }
            $own = $chained ? $this->chain($audio, $diagnostics) : [$this->stretch(0, $size, $stream, 0)];
            $own = array_values(array_filter($own));
            $tags = $tags->isEmpty() ? $stream->tags() : $tags;
            $coded = array_sum(array_map(fn (Link $link): int => $link->coded, $own));
            $segments = array_map(fn (Link $link): Segment => Segment::media($link->base + $link->skip, $link->samples), $own);
            $tracks[] = Track::sound($number, $audio, Timeline::edited(0, $segments, $coded),
                $chained ? $size : $this->coded($stream->serial, $size));
            $links[$number] = $own;
        }
        if ($tracks === []) {
            throw NoTracks::at($this->bytes->name());
        }

        return new OggFile($this->bytes, $tracks, $links, $tags, $diagnostics);
    }

    /**
     * Bytes of the packets of a stream, of a large file about: what its pages take of the first of all pages behind the set-up.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function coded(int $serial, int $size): int
    {
        $head = $own = 0;
        $end = min($size, self::COUNTED);
        for ($at = 0; $at < $end && ($page = Page::read($this->window, $at, $size)) !== null; $at = $page->end()) {
            // RFC 3533, 6: no sound or picture ends on a page of set-up, so that its position is 0.
            $page->granule === 0 ? $head = $page->end() : $own += $page->serial === $serial ? $page->bodyBytes() : 0;
        }

        return $at >= $size || $at <= $head ? ($own === 0 ? $size : $own) : (int) ($own * ($size - $head) / ($at - $head));
    }

    /**
     * Whether another stream of the same number follows, which the standard forbids and some writers do all the same.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function beginsAgain(int $size): bool
    {
        if ($size <= self::WALKED) {
            return count($this->starts($size)) > 1;
        }
        $sequence = 0;
        for ($probe = 1; $probe < self::PROBES; $probe++) {
            $at = PacketWalk::find($this->window, intdiv($size, self::PROBES) * $probe, $size);
            $page = Page::read($this->window, $at, $size);
            if ($page !== null && $page->sequence < $sequence) {
                return true;
            }
            $sequence = $page->sequence ?? $sequence;
        }

        return false;
    }

    /**
     * @return list<LogicalStream> those whose first pages stand together at $at
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function streams(int $at, int $end): array
    {
        $streams = [];
        for ($pages = 0; $pages < self::MOST_STREAMS && ($page = Page::read($this->window, $at, $end)) !== null
            && $page->is(Page::FIRST); $pages++) {
            foreach (PacketWalk::over($this->bytes, $page->at, $page->end(), $page->serial) as [$packet]) {
                $streams[$page->serial] ??= new LogicalStream($page->serial, $packet);
                break;
            }
            $at = $page->end();
        }
        foreach ($streams as $stream) {
            $this->complete($stream, $at, $end);
        }

        return array_values($streams);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function complete(LogicalStream $stream, int $at, int $end): void
    {
        if ($stream->isComplete()) {
            return;
        }
        $limit = min($end, $at + self::MOST_HEAD_PAGES * Page::MOST_BYTES);
        foreach (PacketWalk::over($this->bytes, $at, $limit, $stream->serial) as [$packet]) {
            $stream->add($packet);
            if ($stream->isComplete()) {
                return;
            }
        }
    }

    /**
     * The last whole page between two places; where it is asked for, one in which something stands.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function lastPage(int $from, int $end, ?int $serial = null, bool $holding = false): ?Page
    {
        for ($span = Page::MOST_BYTES + 4096; ; $span *= 4) {
            $at = max($from, $end - $span);
            $found = null;
            for ($at = PacketWalk::find($this->window, $at, $end); $at < $end;) {
                $page = Page::read($this->window, $at, $end);
                if ($page !== null && ($serial === null || $page->serial === $serial) && $page->granule >= 0
                    && (! $holding || $page->bodyBytes() > 0)) {
                    $found = $page;
                }
                $at = $page === null ? PacketWalk::find($this->window, $at + 1, $end) : PacketWalk::find($this->window, $page->end(), $end);
            }
            if ($found !== null || $end - $span <= $from) {
                return $found;
            }
        }
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function stretch(int $at, int $end, LogicalStream $stream, int $base): ?Link
    {
        $audio = $stream->audio();
        if ($audio === null) {
            return null;
        }
        $last = $this->lastPage($at, $end, $stream->serial);
        [$first, $decoded] = $this->begin($at, $end, $stream, $audio);
        // A stream that was cut out of a longer one begins later; one whose begin is trimmed, earlier.
        $origin = $first === null ? 0 : $first - $decoded;
        $granule = $last === null ? 0 : max(0, min($last->granule, $this->reached($at, $end, $stream, $audio, $last, $origin)));
        $short = $first !== null && $last !== null && $last->granule === $first && $last->is(Page::LAST) && $audio->codec !== Codec::Opus;
        $origin = $origin < 0 && ($short || $audio->codec === Codec::Opus) ? 0 : $origin;
        $skip = $audio->codec === Codec::Opus ? $stream->skip() : max(0, -$origin);
        $samples = max(0, $granule - $origin - $skip);

        return new Link($at, $end, $stream->serial, $stream->headerPackets(), $audio, $base, $origin, $skip, $samples,
            max($samples + $skip, $granule - $origin));
    }

    /**
     * The granule position that the packets of the last page reach: no page holds more than they decode to, whatever it states.
     *
     * @param  int  $origin  granule position at which the decoded sound begins
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function reached(int $at, int $end, LogicalStream $stream, AudioFormat $audio, Page $last, int $origin): int
    {
        // Of a packet that holds nothing the next one cannot overlap.
        $before = $this->lastPage($at, $last->at, $stream->serial, holding: true);
        $length = PacketLengths::for($audio);
        $position = $before === null || $before->granule === 0 ? max(0, $origin) : $before->granule;
        $skip = $before === null || $before->granule === 0 ? $stream->headerPackets() : 0;
        $behind = $skip > 0;
        foreach (PacketWalk::over($this->bytes, $skip > 0 ? $at : $before->at ?? $at, $end, $stream->serial) as [$packet, $granule]) {
            if ($skip > 0) {
                $skip--;

                continue;
            }
            $samples = $length->samples($packet);
            if ($behind) {
                $position += $samples;
            }
            // What the page before holds is only needed for the overlap.
            $behind = $behind || $granule === $before?->granule;
        }

        // A jump that no packets fill is a gap only where something follows it.
        return $before !== null && $before->granule - $origin > self::MOST_SECONDS * $audio->rate
            ? $this->counted($at, $end, $stream, $audio) + max(0, $origin) : $position;
    }

    /**
     * Samples that all packets together decode to.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function counted(int $at, int $end, LogicalStream $stream, AudioFormat $audio): int
    {
        $length = PacketLengths::for($audio);
        $skip = $stream->headerPackets();
        $samples = 0;
        foreach (PacketWalk::over($this->bytes, $at, $end, $stream->serial) as [$packet]) {
            $samples += $skip-- > 0 ? 0 : $length->samples($packet);
        }

        return $samples;
    }

    /**
     * @return array{?int, int} the first granule position of sound, and how many samples are decoded up to it
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function begin(int $at, int $end, LogicalStream $stream, AudioFormat $audio): array
    {
        $length = PacketLengths::for($audio);
        $decoded = 0;
        $seen = 0;
        foreach (PacketWalk::over($this->bytes, $at, $end, $stream->serial) as [$packet, $granule]) {
            if ($seen++ < $stream->headerPackets()) {
                continue;
            }
            $decoded += $length->samples($packet);
            if ($granule > 0) {
                return [$granule, $decoded];
            }
        }

        return [null, $decoded];
    }

    /**
     * @param  list<Diagnostic>  $diagnostics  what is left out is added
     * @return list<?Link>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function chain(AudioFormat $audio, array &$diagnostics): array
    {
        $links = [];
        $base = 0;
        $size = $this->bytes->size();
        foreach ($this->starts($size) as [$at, $end]) {
            $stream = $this->streams($at, $end)[0] ?? null;
            $own = $stream?->audio();
            // Other channels are brought into those of the first; what differs in codec or rate is another recording.
            if ($stream === null || $own === null || $own->codec !== $audio->codec || $own->rate !== $audio->rate) {
                $diagnostics[] = Diagnostic::anotherRecording($at, $own === null ? 'something else'
                    : sprintf('another recording (%s at %s Hz)', CodecModules::describe($own), number_format($own->rate)));

                continue;
            }
            $link = $this->stretch($at, $end, $stream, $base);
            $links[] = $link;
            $base += $link->coded ?? 0;
        }

        return $links;
    }

    /**
     * @return list<array{int, int}> begin and end of each link
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function starts(int $size): array
    {
        $starts = [];
        for ($at = 0; $at < $size && count($starts) < self::MOST_LINKS;) {
            $page = Page::read($this->window, $at, $size);
            if ($page === null) {
                $at = PacketWalk::find($this->window, $at + 1, $size);

                continue;
            }
            if ($page->is(Page::FIRST)) {
                $starts[] = $at;
            }
            $at = $page->end();
        }

        return array_map(fn (int $at, int $index): array => [$at, $starts[$index + 1] ?? $size], $starts, array_keys($starts));
    }
}
