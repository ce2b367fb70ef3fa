<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ogg;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\PacketLengths;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Described;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** An opened Ogg file. */
final class OggFile implements Demuxer
{
    use Described;

    /** Samples before the wanted one from which a decoder settles: RFC 7845, 4.6 asks 80 ms of Opus. */
    private const PREROLL = 8192;

    /**
     * @param  list<Track>  $tracks
     * @param  array<int, list<Link>>  $links  by the track's number
     * @param  list<Diagnostic>  $diagnostics
     */
    public function __construct(private readonly ByteSource $bytes, private readonly array $tracks, private readonly array $links,
        private readonly Tags $tags, private readonly array $diagnostics = []) {}

    public function container(): string
    {
        return 'ogg';
    }

    public function chapters(): array
    {
        return $this->tags->chapters;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        foreach ($this->links[$track->number] ?? [] as $link) {
            if ($link->base < $until && $link->base + $link->coded > $from) {
                yield from $this->within($link, $from - $link->base, $until - $link->base);
            }
        }
    }

    /**
     * @return iterable<Packet>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function within(Link $link, int $from, int $until): iterable
    {
        $length = PacketLengths::for($link->audio);
        $page = $from > 4 * self::PREROLL ? $this->pageBefore($link, $from - self::PREROLL) : null;
        $position = $page === null ? 0 : $page->granule - $link->origin;
        $seen = $page === null ? 0 : $link->headerPackets;
        $config = $link->audio->config;
        $opening = null;
        $before = $page;
        foreach (PacketWalk::over($this->bytes, $page->at ?? $link->at, $link->end, $link->serial) as [$packet, $granule]) {
            if ($seen++ < $link->headerPackets) {
                continue;
            }
            if ($before !== null) {
                // Sound of the page before is only needed where packets overlap.
                $opening = $packet;
                if ($granule >= 0) {
                    $before = null;
                    if ($link->audio->codec === Codec::Vorbis) {
                        $length->samples($opening);
                        yield new Packet($opening, $link->base + $position, 0, $config);
                    }
                }

                continue;
            }
            if ($position >= $until) {
                return;
            }
            $samples = $length->samples($packet);
            yield new Packet($packet, $link->base + $position, $samples, $config);
            $position += $samples;
            // Places are stated at every page's end; what was lost shows there. The last page states less than it holds, and never more.
            if ($granule >= 0 && $granule - $link->origin > $position) {
                $position = min($granule - $link->origin, max($position, $link->coded));
            }
        }
    }

    /**
     * A page of the link that ends at or before the sample, by halving.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function pageBefore(Link $link, int $sample): ?Page
    {
        $window = new Window($this->bytes, $link->end, PacketWalk::SPAN);
        $low = $link->at;
        $high = $link->end;
        $best = null;
        while ($high - $low > PacketWalk::SPAN) {
            $middle = intdiv($low + $high, 2);
            $page = $this->pageFrom($window, $middle, $high, $link);
            if ($page === null || $page->granule - $link->origin > $sample) {
                $high = $middle;
            } else {
                $best = $page;
                $low = $page->end();
            }
        }
        for ($at = $low; ($page = $this->pageFrom($window, $at, $link->end, $link)) !== null
            && $page->granule - $link->origin <= $sample; $at = $page->end()) {
            $best = $page;
        }

        return $best !== null && $best->granule > 0 ? $best : null;
    }

    /**
     * The first page from there on that states a place.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function pageFrom(Window $window, int $at, int $end, Link $link): ?Page
    {
        for ($at = PacketWalk::find($window, $at, $end); $at < $end;) {
            $page = Page::read($window, $at, $link->end);
            if ($page !== null && $page->serial === $link->serial && $page->granule >= 0) {
                return $page;
            }
            $at = $page === null ? PacketWalk::find($window, $at + 1, $end) : $page->end();
        }

        return null;
    }
}
