<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Container\Video\Attachment;
use Octavox\Core\Failure;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** Writes Matroska or WebM as packets come: clusters of a few seconds, places to seek to at the end. RFC 9559. */
final class MatroskaWriter
{
    /** Seconds from the start of 1970 to that of 2001, from which dates count: RFC 8794, 7.6. */
    public const EPOCH = 978_307_200;

    /** Nanoseconds of a tick: a millisecond, as WebM asks. */
    private const SCALE = 1_000_000;

    /** A cluster ends after so many ticks or bytes. */
    private const CLUSTER_TICKS = 5_000;

    private const CLUSTER_BYTES = 4 * 1024 * 1024;

    /** Room for the place of the cues in the seek head. */
    private const SEEK_ROOM = 64;

    private const WRITER = 'Octavox';

    private readonly int $segmentAt;

    private readonly int $bodyAt;

    private int $durationAt = 0;

    private int $clusterTime = -1;

    /** @var list<string|Stretch> what stands in the cluster, joined only on the disk */
    private array $cluster = [];

    private int $clusterBytes = 0;

    private readonly bool $hasPicture;

    private int $end = 0;

    /** @var list<array{int, int, int}> time, track, place of the cluster */
    private array $cues = [];

    /**
     * @param  non-empty-list<MatroskaTrack>  $tracks
     * @param  list<Chapter>  $chapters
     * @param  list<Attachment>  $attachments
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(private readonly ByteSink $sink, string $type, private readonly array $tracks, Tags $tags,
        array $chapters = [], array $attachments = [])
    {
        $this->hasPicture = array_filter($tracks, fn (MatroskaTrack $track): bool => $track->type === 1) !== [];
        $sink->needsNoChecksum();
        // EBMLVersion, EBMLReadVersion, EBMLMaxIDLength, EBMLMaxSizeLength, DocType, DocTypeVersion, DocTypeReadVersion
        $sink->write(Elements::master(Id::EBML, Elements::number(0x4286, 1), Elements::number(0x42F7, 1), Elements::number(0x42F2, 4),
            Elements::number(0x42F3, 8), Elements::bytes(Id::DOC_TYPE, $type), Elements::number(0x4287, 4), Elements::number(0x4285, 2)));
        $this->segmentAt = $sink->position();
        $sink->write(Elements::id(Id::SEGMENT).Elements::longSize(0));
        $this->bodyAt = $sink->position();
        // Void, until it is known where the cues stand
        $sink->write("\xEC".Elements::size(self::SEEK_ROOM - 2).str_repeat("\0", self::SEEK_ROOM - 2));
        $before = Elements::number(Id::TIMESTAMP_SCALE, self::SCALE);
        $title = $tags->get(TagField::Title);
        $at = $tags->recordedAt();
        $date = $at === null ? '' : Elements::bytes(Id::DATE, pack('J', 1_000_000_000 * ($at - self::EPOCH)));
        $information = $before.Elements::real(Id::DURATION, 0.0).$date.($title === null ? ''
            : Elements::bytes(Id::TITLE, $title)).Elements::bytes(0x4D80, self::WRITER).Elements::bytes(0x5741, self::WRITER);
        $head = Elements::id(Id::INFO).Elements::size(strlen($information));
        $this->durationAt = $sink->position() + strlen($head) + strlen($before) + 3;
        $sink->write($head.$information);
        $sink->write(Elements::master(Id::TRACKS,
            ...array_map(fn (MatroskaTrack $track, int $index): string => $track->entry($index + 1), $tracks, array_keys($tracks))));
        $sink->write(self::chapters($chapters).self::tags($tags).self::attachments($tags, $attachments));
    }

    /**
     * @param  int  $track  counted from 0
     * @param  int  $nanoseconds  when it is presented
     * @param  int  $discard  nanoseconds at its end that are not presented
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws Failure
     */
    public function write(int $track, string|Stretch $data, int $nanoseconds, bool $key, int $duration, int $discard = 0): void
    {
        $time = max(0, intdiv($nanoseconds + intdiv(self::SCALE, 2), self::SCALE));
        $picture = $this->tracks[$track]->type === 1;
        $relative = $time - $this->clusterTime;
        if ($this->clusterTime < 0 || $relative > 30_000 || $relative < -30_000 || $this->clusterBytes > self::CLUSTER_BYTES
            || $relative >= self::CLUSTER_TICKS && ($picture && $key || ! $this->hasPicture)) {
            $this->flush();
            $this->clusterTime = $time;
            $relative = 0;
        }
        if ($key && ($picture || ! $this->hasPicture && $relative === 0)) {
            $this->cues[] = [$time, $track + 1, $this->sink->position() - $this->bodyAt];
        }
        $head = Elements::size($track + 1).pack('n', $relative & 0xFFFF);
        $bytes = $data instanceof Stretch ? $data->length : strlen($data);
        $block = fn (): string => Elements::bytes(Id::BLOCK, $head."\0".($data instanceof Stretch ? $data->bytes() : $data));
        $told = $this->tracks[$track]->type === 17 || $this->tracks[$track]->timed;
        match (true) {
            $told => $this->add(Elements::master(Id::BLOCK_GROUP, $block(),
                $duration === 0 ? '' : Elements::number(Id::BLOCK_DURATION, max(1, (int) round($duration / self::SCALE))))),
            $discard === 0 => $this->add(Elements::id(Id::SIMPLE_BLOCK).Elements::size(strlen($head) + 1 + $bytes).$head.($key ? "\x80"
                : "\0"), $data),
            default => $this->add(Elements::master(Id::BLOCK_GROUP, $block(), Elements::signed(Id::DISCARD_PADDING, $discard))),
        };
        $this->end = max($this->end, $nanoseconds + $duration - $discard);
    }

    /**
     * @throws FileUnwritable
     * @throws FileUnreadable
     * @throws BytesMissing
     * @throws Failure
     */
    public function finish(): void
    {
        $this->flush();
        $cuesAt = $this->sink->position() - $this->bodyAt;
        // CuePoint, CueTime, CueTrackPositions, CueTrack, CueClusterPosition
        $cues = Elements::master(Id::CUES,
            ...array_map(fn (array $cue): string => Elements::master(0xBB, Elements::number(0xB3, $cue[0]),
                Elements::master(0xB7, Elements::number(0xF7, $cue[1]), Elements::number(0xF1, $cue[2]))), $this->cues));
        if ($this->cues !== []) {
            $this->sink->write($cues);
            // Seek, SeekID, SeekPosition
            $seek = Elements::master(Id::SEEK_HEAD,
                Elements::master(0x4DBB, Elements::bytes(0x53AB, Elements::id(Id::CUES)), Elements::number(0x53AC, $cuesAt)));
            $left = self::SEEK_ROOM - strlen($seek);
            $this->sink->replace($this->bodyAt, $seek."\xEC".Elements::size($left - 2).str_repeat("\0", $left - 2));
        }
        $this->sink->replace($this->durationAt, pack('E', $this->end / self::SCALE));
        $this->sink->replace($this->segmentAt, Elements::id(Id::SEGMENT).Elements::longSize($this->sink->position() - $this->bodyAt));
    }

    /**
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws Failure
     */
    private function flush(): void
    {
        if ($this->cluster !== []) {
            $time = Elements::number(Id::TIMESTAMP, $this->clusterTime);
            $this->sink->write(Elements::id(Id::CLUSTER).Elements::size(strlen($time) + $this->clusterBytes).$time);
            foreach ($this->cluster as $part) {
                $part instanceof Stretch ? $this->sink->copy($part) : $this->sink->write($part);
            }
        }
        $this->cluster = [];
        $this->clusterBytes = 0;
    }

    private function add(string|Stretch ...$parts): void
    {
        foreach ($parts as $part) {
            $this->cluster[] = $part;
            $this->clusterBytes += $part instanceof Stretch ? $part->length : strlen($part);
        }
    }

    /** @param  list<Chapter>  $chapters */
    private static function chapters(array $chapters): string
    {
        if ($chapters === []) {
            return '';
        }
        $atoms = array_map(fn (Chapter $chapter, int $index): string => Elements::master(Id::CHAPTER_ATOM,
            Elements::number(0x73C4, $index + 1),
            Elements::number(Id::CHAPTER_START, (int) round($chapter->starts * 1e9)),
            // ChapLanguage
            Elements::master(Id::CHAPTER_DISPLAY, Elements::bytes(Id::CHAPTER_STRING, $chapter->title), Elements::bytes(0x437C, 'und')),
        ), $chapters, array_keys($chapters));

        return Elements::master(Id::CHAPTERS, Elements::master(Id::EDITION_ENTRY, ...$atoms));
    }

    private static function tags(Tags $tags): string
    {
        $named = $tags->free();
        foreach (TagField::cases() as $field) {
            $named += $field === TagField::Title || $tags->all($field) === [] ? [] : [$field->matroska() => $tags->all($field)];
        }
        $simple = [];
        foreach ($named as $name => $values) {
            foreach ($values as $value) {
                $simple[] = Elements::master(Id::SIMPLE_TAG, Elements::bytes(Id::TAG_NAME, $name), Elements::bytes(Id::TAG_STRING, $value));
            }
        }

        return $simple === [] ? '' : Elements::master(Id::TAGS, Elements::master(Id::TAG, Elements::master(Id::TARGETS), ...$simple));
    }

    /** @param  list<Attachment>  $attachments */
    private static function attachments(Tags $tags, array $attachments): string
    {
        $cover = $tags->cover;
        $files = [...($cover === null ? []
            : [new Attachment('cover'.($cover->type === 'image/png' ? '.png' : '.jpg'), $cover->type, '', $cover->bytes)]),
            ...$attachments];
        // FileUID
        $one = fn (Attachment $file, int $index): string => Elements::master(Id::ATTACHED_FILE,
            $file->description === '' ? '' : Elements::bytes(Id::FILE_DESCRIPTION, $file->description),
            Elements::bytes(Id::FILE_NAME, $file->name),
            Elements::bytes(Id::FILE_MEDIA_TYPE, $file->type), Elements::bytes(Id::FILE_DATA, $file->bytes),
            Elements::number(0x46AE, $index + 1));

        return $files === [] ? '' : Elements::master(Id::ATTACHMENTS, ...array_map($one, $files, array_keys($files)));
    }
}
