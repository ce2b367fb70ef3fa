<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Video\MpegPictures;
use Octavox\Core\Codec\Video\PictureSize;
use Octavox\Core\Codec\Video\PictureUnits;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\StreamClock;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\VideoFormat;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Time;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Tags;

/** Finds format, begin and length of elementary streams from the first and the last bytes of a file. */
final class ElementaryReader
{
    /** Bytes at the start whose pictures are weighed. */
    private const WEIGHED = 2 << 20;

    /** Bytes at each end that are looked at. */
    private const EDGE = 6 * 1024 * 1024;

    /** Ticks a second of all times. */
    public const TICKS = 90_000;

    /**
     * Up to this size every frame is counted; longer files are looked into here and there, and counted where their times do not rise
     * steadily.
     */
    private const COUNTED_BYTES = 32 * 1024 * 1024;

    private const PROBES = 24;

    private const PROBE_BYTES = 256 * 1024;

    /** Seconds of a gap that everything has; what jumps further has begun anew. */
    public const LONGEST_GAP = 10.0;

    /** Clocks that run this much faster than on the whole have jumped. */
    private const MUCH_FASTER = 8;

    /** Pictures that are looked at to find which is shown first. */
    private const FIRST_PICTURES = 12;

    /** Bytes of pictures that are kept to find their size. */
    private const PICTURE_HEAD = 4096;

    /**
     * @param  list<ElementaryTrack>  $tracks
     * @param  list<ChapterTick>  $chapters  what is known of it from elsewhere, as are tags and diagnostics
     * @param  list<Diagnostic>  $diagnostics
     */
    public function __construct(private readonly string $container, private readonly PesSource $source, private readonly array $tracks,
        private readonly array $chapters = [], private readonly ?Tags $tags = null, private readonly array $diagnostics = []) {}

    /**
     * @throws NoTracks
     */
    public function read(): Demuxer
    {
        $size = $this->source->bytes()->size();
        $this->begin(0, min($size, self::EDGE));
        $this->end(max(0, $size - self::EDGE), $size);
        $origin = null;
        foreach ($this->tracks as $track) {
            if ($track->firstShown !== null && $track->origin !== null) {
                $track->firstPts = $track->origin + $track->firstShown & Pes::WRAP - 1;
            }
            if ($track->firstPts !== null) {
                $origin = $origin === null || self::between($track->firstPts, $origin) > 0 ? $track->firstPts : $origin;
            }
        }
        $diagnostics = $size <= self::COUNTED_BYTES || ! $this->isSteady($size) ? $this->count() : [];
        $tracks = [];
        $kept = [];
        foreach ($this->tracks as $track) {
            if ($track->firstPts === null && $track->audio === null && $track->seenBytes === 0) {
                continue;
            }
            $kept[] = $track;
            $tracks[] = $track->sound ? $this->sound(count($tracks) + 1, $track, $origin ?? 0)
                : $this->picture(count($tracks) + 1, $track, $origin ?? 0);
        }
        if ($tracks === []) {
            throw NoTracks::at($this->source->bytes()->name());
        }

        $chapters = array_map(fn (ChapterTick $one): Chapter => new Chapter(max(0, self::between($origin ?? 0, $one->tick)) / self::TICKS,
            $one->title), $this->chapters);

        return new ElementaryFile($this->container, $this->source, $tracks, $kept, [...$this->diagnostics, ...$diagnostics],
            $this->tags ?? Tags::none(), $chapters);
    }

    /** Whether the times rise about as the bytes do. */
    private function isSteady(int $size): bool
    {
        foreach ($this->tracks as $track) {
            if ($track->firstPts === null || $track->lastPts === null) {
                continue;
            }
            $total = self::between($track->firstPts, $track->lastPts);
            $before = 0;
            for ($probe = 1; $probe < self::PROBES; $probe++) {
                $at = intdiv($size * $probe, self::PROBES);
                foreach ($this->source->packets($at, $at + self::PROBE_BYTES, $track->id) as $packet) {
                    if ($packet->pts === null) {
                        continue;
                    }
                    $ticks = self::between($track->firstPts, $packet->pts);
                    $usual = max(1, intdiv($total, self::PROBES));
                    if ($ticks < $before - self::TICKS || $ticks - $before > max(self::MUCH_FASTER * $usual, 60 * self::TICKS)
                        || $ticks > $total + self::TICKS) {
                        return false;
                    }
                    $before = max($before, $ticks);
                    break;
                }
            }
        }

        return true;
    }

    /**
     * Walks through everything once: how many samples there are, and whether times begin anew.
     *
     * @return list<Diagnostic>
     */
    private function count(): array
    {
        $clocks = $pictures = $cutters = [];
        $gap = $this->jumpsTogether() ? self::LONGEST_GAP : StreamClock::LONGEST_GAP;
        foreach ($this->tracks as $track) {
            $track->longestGap = $gap;
        }
        foreach ($this->source->packets(0, $this->source->bytes()->size()) as $packet) {
            $track = $this->track($packet->track);
            if ($track === null || $track->firstPts === null) {
                continue;
            }
            if (! $track->sound) {
                if ($packet->pts !== null) {
                    $pictures[$track->id] ??= new TickClock($gap);
                    $pictures[$track->id]->ticks($packet->dts ?? $packet->pts);
                }

                continue;
            }
            if ($track->audio === null) {
                continue;
            }
            $clocks[$track->id] ??= $track->clock($track->audio->rate);
            if ($track->pcm !== null) {
                $samples = intdiv(strlen($track->pcm->samples($packet->data)), max(1, $track->audio->frameBytes()));
                self::put($clocks[$track->id], $track, $packet->pts, $samples);
            } elseif ($track->framing !== null) {
                $cutters[$track->id] ??= new FrameCutter($track->framing);
                foreach ($cutters[$track->id]->feed($packet) as [, $time, $samples]) {
                    self::put($clocks[$track->id], $track, $time, $samples);
                }
            }
        }
        foreach ($cutters as $id => $cutter) {
            $track = $this->track($id);
            foreach ($cutter->finish() as [, $time, $samples]) {
                $track === null || self::put($clocks[$id], $track, $time, $samples);
            }
        }
        $bases = 0;
        foreach ([...array_keys($clocks), ...array_keys($pictures)] as $id) {
            $track = $this->track($id);
            $clock = $clocks[$id] ?? $pictures[$id];
            if ($track !== null) {
                $track->counted = isset($clocks[$id]) ? $clock->end() : null;
                $track->rebased = $clock->bases() > 0;
                $track->duration = isset($pictures[$id]) && $track->rebased ? $clock->end() : null;
                $bases = max($bases, $clock->bases());
            }
        }

        return $bases === 0 ? [] : [Diagnostic::timeBeginsAnew($bases)];
    }

    /** Whether the picture jumps too, if there is one: then nothing was lost that silence would have to stand for. */
    private function jumpsTogether(): bool
    {
        $hasPicture = false;
        $last = [];
        foreach ($this->tracks as $track) {
            $hasPicture = $hasPicture || ! $track->sound && $track->firstPts !== null;
        }
        foreach ($hasPicture ? $this->source->packets(0, $this->source->bytes()->size()) : [] as $packet) {
            $time = $packet->dts ?? $packet->pts;
            if ($time === null || $this->track($packet->track)?->sound !== false) {
                continue;
            }
            if (isset($last[$packet->track]) && self::between($last[$packet->track], $time) > self::LONGEST_GAP * self::TICKS) {
                return true;
            }
            $last[$packet->track] = $time;
        }

        return ! $hasPicture;
    }

    private static function put(PacketClock $clock, ElementaryTrack $track, ?int $time, int $samples): void
    {
        $clock->place($time === null ? null : self::between((int) $track->firstPts, $time), $samples);
    }

    /** Ticks from one time to another, over the end of 33 bits. */
    public static function between(int $from, int $to): int
    {
        $difference = ($to - $from) & Pes::WRAP - 1;

        return $difference >= Pes::WRAP >> 1 ? $difference - Pes::WRAP : $difference;
    }

    private function begin(int $from, int $until): void
    {
        $cutters = [];
        foreach ($this->source->packets($from, $until) as $packet) {
            $track = $this->track($packet->track);
            if ($track === null) {
                continue;
            }
            $track->seenBytes += strlen($packet->data);
            if (! $track->sound) {
                $this->pictureTime($track, $packet);

                continue;
            }
            $track->seenUntil = $packet->pts ?? $track->seenUntil;
            if ($track->pcm !== null) {
                $track->audio ??= $track->pcm->audio($packet->data);
                $track->firstPts ??= $packet->pts;
            } elseif ($track->framing === null) {
                $track->firstPts ??= $packet->pts;
            } elseif ($track->audio === null) {
                $cutters[$track->id] ??= new FrameCutter($track->framing);
                $this->firstFrame($track, $cutters[$track->id], $packet);
            }
        }
        foreach ($cutters as $id => $cutter) {
            $track = $this->track($id);
            if ($track !== null && $track->audio === null) {
                foreach ($cutter->finish() as [, $time]) {
                    $track->firstPts ??= $time;
                    $track->audio = $track->framing?->audio($track->head);
                    break;
                }
            }
        }
    }

    /** The audio format comes from the whole frame, of which payloads may be only a part. */
    private function firstFrame(ElementaryTrack $track, FrameCutter $cutter, Pes $packet): void
    {
        $track->head = substr($track->head.$packet->data, 0, 65_536);
        foreach ($cutter->feed($packet) as [, $time]) {
            if ($track->audio === null && $track->framing !== null) {
                $track->firstPts = $time ?? $packet->pts;
                $at = $this->place($track);
                $track->audio = $track->framing->audio(substr($track->head, $at));
                $track->head = '';
            }
        }
    }

    /** Where the first frame begins among the bytes that were kept. */
    private function place(ElementaryTrack $track): int
    {
        $framing = $track->framing;
        for ($at = 0, $end = strlen($track->head); $framing !== null && $at < $end; $at++) {
            $facts = $framing->at(substr($track->head, $at, $framing->headBytes()));
            if ($facts !== null
                && $framing->at(substr($track->head, $at + $facts->bytes, $framing->headBytes()))?->identity === $facts->identity) {
                return $at;
            }
        }

        return 0;
    }

    private function pictureTime(ElementaryTrack $track, Pes $packet): void
    {
        if (strlen($track->head) < self::PICTURE_HEAD) {
            $track->head .= substr($packet->data, 0, self::PICTURE_HEAD);
        }
        if (in_array($track->codec, [Codec::Mpeg1Video, Codec::Mpeg2Video], true) && $track->pictures < self::FIRST_PICTURES) {
            $track->cutter ??= new MpegPictures;
            $track->origin ??= $packet->pts;
            foreach ($track->cutter->feed($packet->data, $packet->pts === null || $track->origin === null ? null
                : self::between($track->origin, $packet->pts)) as [, , $shown]) {
                $track->firstShown = min($track->firstShown ?? $shown, $shown);
                $track->pictures++;
            }
        }
        if (! $track->begun && $packet->pts !== null && self::canBegin($track->codec, $packet->data)) {
            // A capture that began in the middle of a group: what comes before the first whole picture is never shown.
            $track->begun = true;
            $track->firstPts = null;
            $track->times = [];
        }
        if ($packet->pts !== null) {
            // Pictures come in the order of decoding: the earliest of the first few is shown first.
            $track->firstPts = $track->firstPts === null || count($track->times) < 8 && self::between($packet->pts, $track->firstPts) > 0
                ? $packet->pts : $track->firstPts;
            $track->lastPts = $track->lastPts === null || self::between($track->lastPts, $packet->pts) > 0 ? $packet->pts : $track->lastPts;
            if (count($track->times) < 100) {
                $track->times[$packet->pts] = true;
            }
        }
    }

    private static function canBegin(Codec $codec, string $data): bool
    {
        return match ($codec) {
            // ISO/IEC 13818-2, 6.2.2.1: the header of a sequence
            Codec::Mpeg1Video, Codec::Mpeg2Video => str_contains($data, "\0\0\1\xB3"),
            default => PictureUnits::of($codec)?->isKey($data) ?? false,
        };
    }

    private function end(int $from, int $until): void
    {
        $cutters = [];
        foreach ($this->source->packets($from, $until) as $packet) {
            $track = $this->track($packet->track);
            if ($track === null) {
                continue;
            }
            if (! $track->sound) {
                if ($packet->pts !== null && ($track->lastPts === null || self::between($track->lastPts, $packet->pts) > 0)) {
                    $track->lastPts = $packet->pts;
                }
            } elseif ($track->pcm !== null && $track->audio !== null) {
                $this->lastFrames($track, $packet->pts,
                    intdiv(strlen($track->pcm->samples($packet->data)), max(1, $track->audio->frameBytes())));
            } elseif ($track->framing !== null) {
                $cutters[$track->id] ??= new FrameCutter($track->framing);
                foreach ($cutters[$track->id]->feed($packet) as [, $time, $samples]) {
                    $this->lastFrames($track, $time, $samples);
                }
            } else {
                $this->lastFrames($track, $packet->pts, 0);
            }
        }
        foreach ($cutters as $id => $cutter) {
            $track = $this->track($id);
            if ($track !== null) {
                foreach ($cutter->finish() as [, $time, $samples]) {
                    $this->lastFrames($track, $time, $samples);
                }
            }
        }
    }

    private function lastFrames(ElementaryTrack $track, ?int $time, int $samples): void
    {
        if ($time !== null) {
            $track->lastPts = $time;
            $track->lastSamples = 0;
        }
        if ($track->lastPts !== null) {
            $track->lastSamples += $samples;
        }
    }

    private function sound(int $number, ElementaryTrack $track, int $origin): Track
    {
        $audio = $track->audio ?? new AudioFormat($track->codec, 48000, Layout::stereo(), null, '', 0, $track->variant);
        if ($track->firstPts === null || $track->lastPts === null) {
            return Track::sound($number, $audio, Timeline::plain(0), 0, $track->language, $track->name);
        }
        $ticks = max(0, self::between($track->firstPts, $track->lastPts));
        $exact = $ticks * $audio->rate / self::TICKS;
        // Frames are all equally long, so that rounded times still give their exact number.
        $between = $audio->frameLength > 0 ? (int) round($exact / $audio->frameLength) * $audio->frameLength : (int) round($exact);
        $coded = $track->counted ?? $between + $track->lastSamples;
        $starts = Time::rescale(max(0, self::between($origin, $track->firstPts)), self::TICKS, $audio->rate);
        $seen = $track->seenUntil === null ? 0 : max(0, self::between($track->firstPts, $track->seenUntil));

        return Track::sound($number, $audio, Timeline::edited($starts, [Segment::media(0, $coded)], $coded),
            $seen === 0 ? $track->seenBytes : (int) ($track->seenBytes / $seen * $ticks), $track->language, $track->name);
    }

    private function picture(int $number, ElementaryTrack $track, int $origin): Track
    {
        $size = PictureSize::find($track->codec, $track->head);
        $times = array_map(fn (int $time): int => self::between((int) $track->firstPts, $time), array_keys($track->times));
        sort($times);
        $count = count($times);
        $rate = $count > 2 && $times[$count - 1] > $times[0] ? ($count - 1) * self::TICKS / ($times[$count - 1] - $times[0]) : 0.0;
        $told = $track->cutter === null ? 0.0 : MpegPictures::perSecond(MpegPictures::head($track->head));
        $rate = $told > 0 ? $told : $rate;
        $starts = $track->firstPts === null ? 0.0 : max(0, self::between($origin, $track->firstPts)) / self::TICKS;
        $seconds = $track->firstPts === null || $track->lastPts === null ? 0.0
            : max(0, self::between($track->firstPts, $track->lastPts)) / self::TICKS + ($rate > 0 ? 1 / $rate : 0);
        $seconds = $track->duration === null ? $seconds : $track->duration / self::TICKS;

        return Track::picture($number, new VideoFormat($track->codec, $track->variant !== '' ? $track->variant : CodecModules::of($track
            ->codec)->label(),
            $size[0], $size[1], $rate, $starts, $seconds), $this->pictureBytes($track, $seconds, $rate), $track->language, $track->name);
    }

    /** Bytes of all pictures, as many a second as there are in the part at the start that was looked at. */
    private function pictureBytes(ElementaryTrack $track, float $seconds, float $rate): int
    {
        [$bytes, $seen] = [0, 0];
        foreach ($this->source->packets(0, min($this->source->bytes()->size(), self::WEIGHED), $track->id) as $packet) {
            $bytes += strlen($packet->data);
            $seen = $packet->pts === null || $track->firstPts === null ? $seen : max($seen, self::between($track->firstPts, $packet->pts));
        }

        return $seen === 0 ? $bytes : (int) ($bytes * max(1.0, $seconds / ($seen / self::TICKS + ($rate > 0 ? 1 / $rate : 0))));
    }

    private function track(int $id): ?ElementaryTrack
    {
        foreach ($this->tracks as $track) {
            if ($track->id === $id) {
                return $track;
            }
        }

        return null;
    }
}
