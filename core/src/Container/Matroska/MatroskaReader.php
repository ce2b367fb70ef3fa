<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Flac\FrameHeader;
use Octavox\Core\Codec\Opus\OpusHead;
use Octavox\Core\Codec\PacketLengths;
use Octavox\Core\Codec\WavPack\BlockHeader;
use Octavox\Core\Container\BitmapHeader;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Container\StreamFormat;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Findings;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Severity;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Media\VideoFormat;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** Reads the parts of a segment: tracks, tags, chapters; of the clusters only where they stand, and the first and last blocks. */
final class MatroskaReader
{
    /** Up to this size every block's head is looked at, so that lengths are exact whatever the codec. */
    private const SMALL_FILE = 64 * 1024 * 1024;

    /** Clusters at the start and at the end that are looked into. */
    private const EDGE_CLUSTERS = 6;

    private const MOST_TRACKS = 256;

    private readonly ElementReader $elements;

    private int $scale = 1_000_000;

    private float $duration = 0.0;

    private Tags $tags;

    /** @var list<TrackEntry> */
    private array $entries = [];

    /** @var list<Chapter> */
    private array $chapters = [];

    private ClusterList $clusters;

    private bool $cut = false;

    /** Attached files that are copied, all together; what is beyond is left behind. */
    private const MOST_ATTACHED = 500;

    private const MOST_ATTACHED_BYTES = 64 * 1024 * 1024;

    /** @var list<AttachedFile> */
    private array $attached = [];

    private int $attachedBytes = 0;

    public function __construct(private readonly ByteSource $bytes)
    {
        $this->elements = new ElementReader($bytes, 512);
        $this->tags = Tags::none();
        $this->clusters = new ClusterList;
    }

    /**
     * @throws Failure
     */
    public function read(): Demuxer
    {
        $size = $this->bytes->size();
        $head = $this->elements->at(0, $size) ?? throw BrokenStructure::at($this->bytes->name(), 0, 'its first part cannot be read');
        $type = $this->elements->find($head, Id::DOC_TYPE);
        $container = $type !== null && $this->elements->text($type) === 'webm' ? 'webm' : 'mkv';
        $segment = $this->elements->at($head->end, $size);
        while ($segment !== null && $segment->id !== Id::SEGMENT) {
            $segment = $this->elements->at($segment->end, $size);
        }
        if ($segment === null) {
            throw NoTracks::at($this->bytes->name());
        }
        try {
            $this->segment($segment);
        } catch (BytesMissing) {
            $this->cut = true;
        }
        if ($this->entries === []) {
            throw NoTracks::at($this->bytes->name());
        }

        return $this->media($container);
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function segment(Element $segment): void
    {
        $at = $segment->bodyAt;
        while (($child = $this->elements->at($at, $segment->end)) !== null) {
            if ($child->id === Id::CLUSTER) {
                $at = $this->cluster($child);

                continue;
            }
            match ($child->id) {
                Id::INFO => $this->info($child),
                Id::TRACKS => $this->tracks($child),
                Id::CHAPTERS => $this->chapters($child),
                Id::TAGS => $this->tags($child),
                Id::ATTACHMENTS => $this->attachments($child),
                default => null,
            };
            $at = $child->end;
        }
    }

    /**
     * Notes where it stands and gives where it ends.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function cluster(Element $cluster): int
    {
        $time = null;
        $end = $cluster->end;
        foreach ($this->elements->children($cluster) as $child) {
            if ($child->id === Id::TIMESTAMP) {
                $time = $this->elements->number($child);
                if (! $cluster->open) {
                    break;
                }
            } elseif ($cluster->open && in_array($child->id, Id::TOP, true)) {
                $end = $child->at;
                break;
            }
        }
        if ($time !== null) {
            $this->clusters->add($cluster->at, $end, $time);
        }

        return $end;
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function info(Element $info): void
    {
        foreach ($this->elements->children($info) as $child) {
            match ($child->id) {
                Id::TIMESTAMP_SCALE => $this->scale = max(1, $this->elements->number($child)),
                Id::DURATION => $this->duration = $this->elements->real($child),
                Id::DATE => $this->tags = $this->tags->withRecordedAt(intdiv($this->elements->signed($child), 1_000_000_000)
                    + MatroskaWriter::EPOCH),
                Id::TITLE => $this->tags = $this->tags->get(TagField::Title) === null
                    ? $this->tags->with(TagField::Title, $this->elements->text($child)) : $this->tags,
                default => null,
            };
        }
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function tracks(Element $tracks): void
    {
        $reader = new TrackEntryReader($this->elements);
        foreach ($this->elements->children($tracks) as $child) {
            $entry = $child->id === Id::TRACK_ENTRY && count($this->entries) < self::MOST_TRACKS ? $reader->read($child) : null;
            if ($entry !== null) {
                $this->entries[] = $entry;
            }
        }
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function chapters(Element $chapters): void
    {
        $edition = $this->elements->find($chapters, Id::EDITION_ENTRY);
        foreach ($edition === null ? [] : $this->elements->children($edition) as $atom) {
            $start = $atom->id === Id::CHAPTER_ATOM ? $this->elements->find($atom, Id::CHAPTER_START) : null;
            if ($start === null || count($this->chapters) >= 10_000) {
                continue;
            }
            $display = $this->elements->find($atom, Id::CHAPTER_DISPLAY);
            $title = $display === null ? null : $this->elements->find($display, Id::CHAPTER_STRING);
            $this->chapters[] = new Chapter($this->elements->number($start) / 1e9, $title === null ? '' : $this->elements->text($title));
        }
    }

    /**
     * Only tags of the whole file: those with a target belong to a track or a chapter.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function tags(Element $tags): void
    {
        foreach ($this->elements->children($tags) as $tag) {
            $targets = $tag->id === Id::TAG ? $this->elements->find($tag, Id::TARGETS) : null;
            if ($tag->id !== Id::TAG || $targets !== null && $this->elements->find($targets, Id::TARGET_TRACK) !== null) {
                continue;
            }
            foreach ($this->elements->children($tag) as $simple) {
                $name = $simple->id === Id::SIMPLE_TAG ? $this->elements->find($simple, Id::TAG_NAME) : null;
                $value = $simple->id === Id::SIMPLE_TAG ? $this->elements->find($simple, Id::TAG_STRING) : null;
                if ($name === null || $value === null) {
                    continue;
                }
                $name = strtoupper($this->elements->text($name));
                $field = $name === 'DATE' ? TagField::Year : null;
                foreach (TagField::cases() as $one) {
                    $field = $one->matroska() === $name ? $one : $field;
                }
                $text = $this->elements->text($value);
                $this->tags = $field === null ? $this->tags->addingFree($name, $text) : $this->tags->adding($field, $text);
            }
        }
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function attachments(Element $attachments): void
    {
        foreach ($this->elements->children($attachments) as $file) {
            $data = $file->id === Id::ATTACHED_FILE ? $this->elements->find($file, Id::FILE_DATA) : null;
            $type = $file->id === Id::ATTACHED_FILE ? $this->elements->find($file, Id::FILE_MEDIA_TYPE) : null;
            if ($data === null || $type === null) {
                continue;
            }
            $cover = $data->length() <= Cover::MOST_BYTES && $this->tags->cover === null
                && str_starts_with($this->elements->text($type), 'image/') ? Cover::recognise($this->elements->content($data)) : null;
            if ($cover !== null) {
                $this->tags = $this->tags->withCover($cover);
            } elseif (count($this->attached) < self::MOST_ATTACHED && $this->attachedBytes + $data->length() <= self::MOST_ATTACHED_BYTES) {
                $text = fn (int $id): string => ($found = $this->elements->find($file, $id)) === null ? '' : $this->elements->text($found);
                $this->attached[] = new AttachedFile($text(Id::FILE_NAME), $this->elements->text($type), $text(Id::FILE_DESCRIPTION),
                    $data->bodyAt, $data->length());
                $this->attachedBytes += $data->length();
            }
        }
    }

    /**
     * @throws Failure
     */
    private function media(string $container): Demuxer
    {
        $survey = $this->survey();
        $tracks = [];
        $origins = [];
        foreach ($this->entries as $index => $entry) {
            $number = $index + 1;
            $facts = $survey->track($entry->number);
            $language = $entry->language;
            if ($entry->kind === TrackKind::Text) {
                $tracks[] = Track::text($number, $language, $entry->name, $entry->encrypted ? '' : mb_scrub($entry->codecId));
            } elseif ($entry->kind === TrackKind::Picture) {
                $tracks[] = $this->picture($number, $entry, $facts);
            } else {
                $audio = $this->probedFormat($entry, $facts);
                $entry->sound = $audio;
                $origins[$number] = $facts->counted ?? 0;
                $tracks[] = Track::sound($number, $audio, $this->timeline($entry, $audio, $facts), $this->codedBytes($facts),
                    $language, $entry->name);
            }
        }
        $diagnostics = $this->cut || $this->duration > 0 && $this->clusters->count() > 0
            && $survey->end() < 0.98 * $this->duration - 5e9 / $this->scale
            ? [new Diagnostic(new Findings\CutShort, Severity::Warn)]
            : [];

        return new MatroskaFile(new OpenedBytes($container, $this->bytes, $this->tags, $diagnostics), $tracks,
            new MatroskaIndex($this->entries, $this->clusters, $origins, $this->scale), $this->chapters, $this->attached);
    }

    /**
     * Looks at the heads of all blocks of a small file, of a large one only at both ends. Packets of Vorbis differ in length, and nothing
     * but all of them tells how many samples there are.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function survey(): Survey
    {
        $vorbis = array_filter($this->entries, fn (TrackEntry $entry): bool => $entry->sound?->codec === Codec::Vorbis);
        $whole = $this->bytes->size() <= self::SMALL_FILE || $vorbis !== [];
        $survey = new Survey($whole);
        $count = $this->clusters->count();
        foreach ($this->entries as $entry) {
            $survey->expect($entry);
        }
        for ($index = 0; $index < $count; $index++) {
            if (! $whole && $index >= self::EDGE_CLUSTERS && $index < $count - self::EDGE_CLUSTERS) {
                $index = $count - self::EDGE_CLUSTERS;
                $survey->jump();
            }
            $cluster = $this->elements->at($this->clusters->at($index), $this->clusters->end($index));
            foreach ($cluster === null ? [] : (new ClusterReader($this->elements))->frames($cluster) as $frame) {
                if ($frame->at + $frame->bytes > $this->bytes->size()) {
                    $this->cut = true;

                    continue;
                }
                $survey->take($frame, fn (int $length): string => $this->bytes->read($frame->at, min($length, $frame->bytes)));
            }
        }

        return $survey;
    }

    /**
     * Asks the first frame what the entry cannot tell: the layout of AC-3, MPEG audio and DTS, the bit depth of WavPack.
     *
     * @throws BytesMissing
     * @throws NoTracks
     * @throws FileUnreadable
     */
    private function probedFormat(TrackEntry $entry, TrackSurvey $facts): AudioFormat
    {
        $audio = $entry->sound ?? throw NoTracks::at($this->bytes->name());
        if ($audio->codec === Codec::WavPack && $facts->firstAt !== null) {
            $block = $entry->packet($entry->whole($this->bytes->read($facts->firstAt, $facts->firstBytes)), 0);

            return BlockHeader::parse($block)?->audio($block) ?? $audio;
        }
        if (! StreamFormat::isTold($audio) || $facts->firstAt === null) {
            return $audio;
        }

        return StreamFormat::read($audio, $entry->whole($this->bytes->read($facts->firstAt, min($facts->firstBytes, StreamFormat::BYTES))));
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function timeline(TrackEntry $entry, AudioFormat $audio, TrackSurvey $facts): Timeline
    {
        $rate = $audio->rate;
        // Some writers leave the delay to the stream's own header.
        $skip = $entry->delay === 0 && $audio->codec === Codec::Opus ? OpusHead::parse($audio->config)->skip ?? 0
            : (int) round($entry->delay * $rate / 1e9);
        if ($facts->first === null || $facts->last === null) {
            return Timeline::plain(0);
        }
        $starts = (int) round($facts->first * $this->scale * $rate / 1e9);
        if (! PacketLengths::areTold($audio)) {
            $coded = (int) round(($facts->last - $facts->first) * $this->scale * $rate / 1e9)
                + (int) round($facts->lastTicks * $this->scale * $rate / 1e9);

            return Timeline::edited($starts, [Segment::media(min($skip, $coded), max(0, $coded - $skip))], $coded);
        }
        $coded = $facts->samples ?? $this->estimated($entry, $audio, $facts);
        // Times and counted frames differ where there are gaps: then times count.
        $byTime = (int) round(($facts->last - (int) $facts->counted) * $this->scale * $rate / 1e9) + $facts->lastSamples;
        if (abs($byTime - $coded) > max(2 * $facts->lastSamples, intdiv($rate, 20))) {
            $coded = max($coded, $byTime);
        }
        $discard = (int) round(max(0, $facts->discard) * $rate / 1e9);
        $discard = min($discard, $audio->codec === Codec::Opus ? $facts->lastSamples : $coded);

        return Timeline::edited($starts, [Segment::media($skip, max(0, $coded - $skip - $discard))], $coded);
    }

    /**
     * Where not every block was looked at: whole frames between the first and the last.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function estimated(TrackEntry $entry, AudioFormat $audio, TrackSurvey $facts): int
    {
        $between = ((int) $facts->last - (int) $facts->first) * $this->scale * $audio->rate / 1e9;
        if ($audio->codec === Codec::Flac && $facts->lastAt !== null) {
            $header = FrameHeader::parse($entry->whole($this->bytes->read($facts->lastAt, 16)));
            if ($header !== null && $header->countsSamples) {
                return $header->number + $header->samples;
            }
        }
        $frame = $audio->frameLength > 0 ? $audio->frameLength : $facts->usualSamples;

        return ($frame > 0 ? (int) round($between / $frame) * $frame : (int) round($between)) + $facts->lastSamples;
    }

    private function codedBytes(TrackSurvey $facts): int
    {
        $span = (int) $facts->last - (int) $facts->first;

        return $facts->samples !== null || $facts->seenTicks === 0 ? $facts->bytes : (int) ($facts->bytes / $facts->seenTicks * $span);
    }

    private function picture(int $number, TrackEntry $entry, TrackSurvey $facts): Track
    {
        $bitmap = $entry->codecId === MatroskaPicture::BITMAP ? BitmapHeader::parse($entry->private) : null;
        $codec = match (true) {
            $bitmap !== null => $bitmap->codec(),
            $entry->codecId === 'V_MPEG4/ISO/AVC' => Codec::H264,
            $entry->codecId === 'V_MPEGH/ISO/HEVC' => Codec::H265,
            $entry->codecId === 'V_VP8' => Codec::Vp8,
            $entry->codecId === 'V_VP9' => Codec::Vp9,
            $entry->codecId === 'V_AV1' => Codec::Av1,
            $entry->codecId === 'V_MJPEG' => Codec::MotionJpeg,
            $entry->codecId === 'V_MPEG1' => Codec::Mpeg1Video,
            $entry->codecId === 'V_MPEG2' => Codec::Mpeg2Video,
            $entry->codecId === 'V_PRORES' => Codec::Prores,
            str_starts_with($entry->codecId, 'V_MPEG4/ISO') => Codec::Mpeg4Visual,
            default => Codec::Unknown,
        };
        $seconds = $facts->first === null ? 0.0
            : ((int) $facts->last - $facts->first) * $this->scale / 1e9 + $entry->frameNanoseconds / 1e9;
        $rate = $entry->frameNanoseconds > 0 ? 1e9 / $entry->frameNanoseconds
            : ($seconds > 0 && $facts->samples !== null ? $facts->frames / $seconds : 0.0);

        return Track::picture($number,
            new VideoFormat($codec, $bitmap?->label() ?? ($codec === Codec::Unknown ? $entry->codecId : CodecModules::of($codec)
                ->label()), $entry->width,
                $entry->height, $rate, ($facts->first ?? 0) * $this->scale / 1e9, $seconds), $this->codedBytes($facts),
            $entry->language, $entry->name);
    }
}
