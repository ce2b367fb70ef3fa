<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Opus\OpusHead;
use Octavox\Core\Codec\PlausibleLength;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\StreamFormat;
use Octavox\Core\Container\Video\AuxiliaryTrack;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Failure;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Media\VideoFormat;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Time;

/** All that a movie's index says of one track. */
final class TrackTable
{
    private const MOST_ENTRY = 1 << 16;

    /** Packets that are counted one by one. */
    private const MOST_COUNTED = 200_000;

    public readonly int $identity;

    public readonly int $timescale;

    private ?int $coded = null;

    private ?int $until = null;

    /** Samples that the packets themselves tell, where their times are not to be trusted. */
    private ?int $counted = null;

    /**
     * @param  list<Edit>  $edits
     * @param  ?Box  $header  the media header of what is neither sound nor picture
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(
        private readonly int $number,
        private readonly TrackHead $head,
        private ?SampleEntry $entry,
        private readonly int $movieTimescale,
        private readonly array $edits,
        public readonly SampleTable $samples,
        private readonly ?Box $header,
    ) {
        $this->identity = $head->identity;
        $this->timescale = $timescale = $head->timescale;
        $audio = $entry?->sound;
        $frame = $audio === null ? 0 : match ($audio->codec) {
            Codec::Opus => OpusHead::LONGEST_PACKET,
            Codec::Aac, Codec::Mp3, Codec::Mp2, Codec::Ac3, Codec::Eac3, Codec::Alac => $audio->frameLength,
            default => 0,
        };
        if ($audio !== null && $frame > 0) {
            $samples->boundDurations((int) ceil($frame * $timescale / max(1, $audio->rate)), PlausibleLength::MOST_SILENCE * $timescale);
        }
    }

    /**
     * What copying the pictures needs; null for other tracks.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function pictureStream(BoxReader $boxes): ?PictureStream
    {
        $box = $this->entry?->box;
        if ($this->entry === null || $box === null || $this->head->kind !== TrackKind::Picture) {
            return null;
        }
        $seconds = $this->samples->ticks() / $this->timescale;

        return PictureEntry::read($boxes, $box, new PictureStream($this->entry->codec, $this->entry->width, $this->entry->height,
            $this->timescale, $seconds > 0 ? $this->samples->samples() / $seconds : 0.0, '', '', $this->head->matrix, $this->spacing(),
            null, $this->head->language, $this->firstShown()));
    }

    /**
     * Width and height of a picture element, as the track's header tells them; null where they are square: ISO/IEC 14496-12, 8.3.2.
     *
     * @return ?array{int, int}
     */
    private function spacing(): ?array
    {
        [$width, $height] = $this->head->shape;
        $own = $this->entry;
        if ($own === null || $width < 1 || $height < 1 || $own->width < 1 || $own->height < 1
            || abs($width * $own->height - $height * $own->width) < 0.01 * $height * $own->width) {
            return null;
        }

        return [(int) round($width * $own->height), (int) round($height * $own->width)];
    }

    /**
     * What copying subtitles or a time code needs; null for other tracks.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function auxiliary(BoxReader $boxes): ?AuxiliaryTrack
    {
        $box = $this->entry?->box;
        if ($box === null || ! in_array($this->head->kind, [TrackKind::Text, TrackKind::Timecode], true)
            || $box->end - $box->at > self::MOST_ENTRY || $this->header !== null
            && $this->header->end - $this->header->at > self::MOST_ENTRY) {
            return null;
        }
        $whole = fn (Box $one): string => $boxes->bytes->read($one->at, $one->end - $one->at);

        return new AuxiliaryTrack($box->type, $whole($box), $this->timescale, $this->head->language, '', $this->head->handler,
            $this->header === null ? '' : $whole($this->header));
    }

    /** Ticks from the media's own time to that of the movie. */
    public function shift(): int
    {
        $empty = 0;
        foreach ($this->edits as $edit) {
            if ($edit->mediaTime >= 0) {
                return Time::rescale($empty, $this->movieTimescale, $this->timescale) - $edit->mediaTime;
            }
            $empty += $edit->duration;
        }

        return 0;
    }

    /** Ticks of the media at which the presentation begins, by the first edit that is not empty. */
    private function firstShown(): ?int
    {
        foreach ($this->edits as $edit) {
            if ($edit->mediaTime >= 0) {
                return $edit->mediaTime;
            }
        }

        return null;
    }

    public function kind(): TrackKind
    {
        return $this->head->kind;
    }

    /**
     * @param  bool  $chapters  whether it names the chapters of another
     *
     * @throws Failure
     */
    public function track(?GaplessComment $gapless, bool $chapters = false): Track
    {
        return match (true) {
            $this->head->kind === TrackKind::Timecode && $this->entry !== null => Track::timecode($this->number, $this->entry->label),
            $this->head->kind === TrackKind::Text || $this->entry === null => Track::text($this->number, $this->head->language, '',
                $chapters || $this->entry === null ? '' : mb_scrub($this->entry->label)),
            $this->entry->sound === null => $this->picture($this->entry),
            default => Track::sound(
                $this->number,
                $this->entry->sound,
                $this->timeline($this->entry->sound->rate, $gapless),
                $this->codedBytes(),
                $this->head->language,
            ),
        };
    }

    /**
     * Bytes of all packets together, as the index announces them; no more than the file has.
     *
     * @throws BytesMissing
     * @throws LibraryMissing
     * @throws FileUnreadable
     */
    public function codedBytes(): int
    {
        return $this->coded ??= min($this->samples->limit, $this->samples->bytes($this->entry?->sound?->frameBytes() ?? 0));
    }

    /**
     * @throws Failure
     */
    private function picture(SampleEntry $entry): Track
    {
        $seconds = $this->samples->ticks() / $this->timescale;
        $empty = 0;
        $mediaTime = null;
        foreach ($this->edits as $edit) {
            if ($edit->mediaTime >= 0) {
                $mediaTime = $edit->mediaTime;
                break;
            }
            $empty += $edit->duration;
        }
        // Without an edit that begins there, the first picture stands as late as its own time says.
        $late = max(0, $this->samples->firstShown() - ($mediaTime ?? 0)) / $this->timescale;
        $seconds = max(0.0, $seconds - $this->samples->firstTick() / $this->timescale);

        return Track::picture($this->number, new VideoFormat(
            $entry->codec === Codec::Unknown ? Codec::Unknown : $entry->codec,
            $entry->label,
            $entry->width,
            $entry->height,
            $seconds > 0 ? $this->samples->samples() / $seconds : 0.0,
            $empty / $this->movieTimescale + $late,
            $seconds,
        ), min($this->samples->limit, $this->samples->bytes(0)), $this->head->language);
    }

    /**
     * Tick at which what is there of the track ends.
     *
     * @throws Failure
     */
    private function thereUntil(): int
    {
        return $this->until ??= $this->samples->thereUntil($this->entry?->sound?->frameBytes() ?? 0);
    }

    /**
     * Whether the index names samples that are not in the file.
     *
     * @throws Failure
     */
    public function isCutShort(): bool
    {
        return $this->thereUntil() < $this->samples->ticks();
    }

    /**
     * @return array{float, float} seconds that are announced, and that are there
     *
     * @throws Failure
     */
    public function seconds(): array
    {
        return [$this->samples->ticks() / $this->timescale, $this->thereUntil() / $this->timescale];
    }

    /**
     * Samples that all packets decode to; recorders stamp them by their clock, not by what is in them.
     *
     * @throws Failure
     */
    private function opusSamples(ByteSource $bytes): ?int
    {
        $audio = $this->entry?->sound;
        if ($audio === null || $this->samples->steadyDuration() !== null && $this->timescale === $audio->rate) {
            return null;
        }
        $samples = $seen = 0;
        foreach ($this->samples->walk(0, PHP_INT_MAX >> 2, 0) as [$at, $size]) {
            $samples += $size === 0 ? 0 : OpusHead::samples($bytes->read($at, min(2, $size)));
            if (++$seen >= self::MOST_COUNTED) {
                return null;
            }
        }
        $stated = Time::rescale($this->thereUntil() - $this->samples->firstTick(), $this->timescale, $audio->rate);

        // Much less than the times say: the rest are gaps.
        return $stated - $samples > intdiv($audio->rate, 4) ? null : $samples;
    }

    /**
     * Samples that all packets decode to: by their times, or as many as they hold where fragments count times of their own that hardly
     * differ.
     *
     * @throws Failure
     */
    private function counted(int $rate): int
    {
        $stated = Time::rescale($this->thereUntil() - $this->samples->firstTick(), $this->timescale, $rate);
        $frame = $this->entry->sound->frameLength ?? 0;
        $held = $frame * $this->samples->samples();

        return match (true) {
            $this->counted !== null => $this->counted,
            $this->samples->isFragmented() && ! $this->isCutShort() && $frame > 0 && abs($stated - $held) <= intdiv($rate, 50) => $held,
            default => $stated,
        };
    }

    /** Decoded samples that the codec's own set-up tells to leave out, where no edit does. */
    private function priming(): int
    {
        $audio = $this->entry?->sound;

        return $audio?->codec === Codec::Opus ? OpusHead::parse($audio->config)->skip ?? 0 : 0;
    }

    /**
     * The audio format as the first packet tells it, where it tells more than the entry: {@see StreamFormat}.
     *
     * @throws Failure
     */
    public function resolveFormat(ByteSource $bytes): void
    {
        $audio = $this->entry?->sound;
        if ($audio?->codec === Codec::Opus) {
            $this->counted = $this->opusSamples($bytes);
        }
        if ($audio === null || ! StreamFormat::isTold($audio)) {
            return;
        }
        foreach ($this->samples->walk(0, PHP_INT_MAX >> 2, 0) as [$at, $size]) {
            if ($size > 0) {
                $this->entry = $this->entry->withSound(StreamFormat::read($audio, $bytes->read($at, min($size, StreamFormat::BYTES))));

                return;
            }
        }
    }

    /**
     * Edits in samples. A length is known to one tick of the movie only: where the media ends within that tick, its end is meant.
     *
     * @throws Failure
     */
    private function timeline(int $rate, ?GaplessComment $gapless): Timeline
    {
        // Decoded samples are counted from the first packet that there is.
        $begin = Time::rescale($this->samples->firstTick(), $this->timescale, $rate);
        $length = $this->counted($rate);
        $least = $this->priming();
        $tick = intdiv($rate, $this->movieTimescale) + 1;
        $starts = 0;
        $segments = [];
        foreach ($this->edits as $edit) {
            $asked = Time::rescale($edit->duration, $this->movieTimescale, $rate);
            if ($edit->mediaTime < 0) {
                $segments === [] ? $starts += $asked : $segments[] = Segment::silence($asked);

                continue;
            }
            $wanted = Time::rescale($edit->mediaTime, $this->timescale, $rate) - $begin;
            if ($segments === [] && $wanted < 0) {
                // The media begins later than the edit does.
                $starts -= $wanted;
                $asked = max(0, $asked + $wanted);
                $wanted = 0;
            }
            $from = min($length, $segments === [] ? max($wanted, $least) : $wanted);
            $left = $length - $from;
            $toEnd = $edit->duration === 0 || $asked > $left || abs($asked - $left) <= $tick;
            $segments[] = Segment::media($from, $toEnd ? $left : $asked);
        }
        if ($gapless !== null && count($segments) < 2) {
            $from = $segments === [] || $segments[0]->from === 0 ? $gapless->delay : (int) $segments[0]->from;
            if ($gapless->samples <= $length - $from
                && ($segments === [] || $segments[0]->length === $length || abs($segments[0]->length - $gapless->samples) <= $tick)) {
                return Timeline::edited($starts, [Segment::media($from, $gapless->samples)], $length);
            }
        }

        return $segments === [] ? Timeline::edited($begin, [Segment::media(min($least, $length), max(0, $length - $least))], $length)
            : Timeline::edited($starts, $segments, $length);
    }
}
