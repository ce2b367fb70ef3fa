<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Asf;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\FrameParsers;
use Octavox\Core\Container\BitmapHeader;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\Wave\FormatChunk;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Findings;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Severity;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\VideoFormat;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** Reads the header objects: streams, length, tags, protection; then of the packets as much as tells the lengths of the tracks. */
final class AsfReader
{
    /** Identities of objects: section 10 of the specification. */
    public const HEADER = "\x30\x26\xB2\x75\x8E\x66\xCF\x11\xA6\xD9\x00\xAA\x00\x62\xCE\x6C";

    private const FILE = "\xA1\xDC\xAB\x8C\x47\xA9\xCF\x11\x8E\xE4\x00\xC0\x0C\x20\x53\x65";

    private const STREAM = "\x91\x07\xDC\xB7\xB7\xA9\xCF\x11\x8E\xE6\x00\xC0\x0C\x20\x53\x65";

    private const DESCRIPTION = "\x33\x26\xB2\x75\x8E\x66\xCF\x11\xA6\xD9\x00\xAA\x00\x62\xCE\x6C";

    private const MORE = "\x40\xA4\xD0\xD2\x07\xE3\xD2\x11\x97\xF0\x00\xA0\xC9\x5E\xA8\x50";

    private const ENCRYPTION = "\xFB\xB3\x11\x22\x23\xBD\xD2\x11\xB4\xB7\x00\xA0\xC9\x55\xFC\x6E";

    private const SOUND = "\x40\x9E\x69\xF8\x4D\x5B\xCF\x11\xA8\xFD\x00\x80\x5F\x5C\x44\x2B";

    private const PICTURE = "\xC0\xEF\x19\xBC\x4D\x5B\xCF\x11\xA8\xFD\x00\x80\x5F\x5C\x44\x2B";

    private const DATA = "\x36\x26\xB2\x75\x8E\x66\xCF\x11\xA6\xD9\x00\xAA\x00\x62\xCE\x6C";

    /** Error correction by spreading the bytes of sound: section 10.5. */
    private const SPREAD = "\x50\xCD\xC3\xBF\x8F\x61\xCF\x11\x8B\xB2\x00\xAA\x00\xB4\xE2\x20";

    /** Packets at the end among which the last object of every stream is looked for. */
    private const LAST_PACKETS = 64;

    /** Pictures from which their rate is told. */
    private const FIRST_PICTURES = 250;

    private const MOST_OBJECT = 32 * 1024 * 1024;

    private const NAMES = [
        'WM/AlbumTitle' => TagField::Album, 'WM/AlbumArtist' => TagField::AlbumArtist, 'WM/TrackNumber' => TagField::Track,
        'WM/PartOfSet' => TagField::Disc,
        'WM/Year' => TagField::Year, 'WM/Genre' => TagField::Genre, 'WM/Composer' => TagField::Composer, 'WM/Writer' => TagField::Lyricist,
        'WM/Conductor' => TagField::Conductor,
        'WM/Publisher' => TagField::Publisher, 'WM/ISRC' => TagField::Isrc, 'WM/Lyrics' => TagField::Lyrics,
        'WM/BeatsPerMinute' => TagField::Tempo, 'WM/InitialKey' => TagField::Key, 'WM/Mood' => TagField::Mood,
    ];

    private Tags $tags;

    private float $seconds = 0.0;

    /** @var list<Track> */
    private array $tracks = [];

    /** @var list<string> the bodies of the stream properties objects */
    private array $described = [];

    /** @var array<int, AsfStream> */
    private array $streams = [];

    /** @var array<int, AsfPicture> */
    private array $pictures = [];

    private int $packetBytes = 0;

    private int $runIn = 0;

    private bool $protected = false;

    public function __construct(private readonly ByteSource $bytes)
    {
        $this->tags = Tags::none();
    }

    /**
     * @throws Failure
     */
    public function read(): Demuxer
    {
        $length = (new Cursor($this->bytes->read(16, 8), $this->bytes->name(), 16))->u64le();
        $end = min($this->bytes->size(), $length);
        for ($at = 30; $at + 24 <= $end; $at += $size) {
            $head = new Cursor($this->bytes->read($at, 24), $this->bytes->name(), $at);
            $name = $head->take(16);
            $size = $head->u64le();
            if ($size < 24) {
                break;
            }
            $there = min($size, $end - $at) - 24;
            if ($there <= self::MOST_OBJECT) {
                $this->object($name, $this->bytes->read($at + 24, $there), $at + 24);
            }
        }
        $packets = $this->packets($end);
        foreach ($this->described as $body) {
            $this->stream($body, $packets);
        }
        if ($this->tracks === []) {
            throw NoTracks::at($this->bytes->name());
        }
        $diagnostics = $this->protected
            ? [new Diagnostic(new Findings\CopyProtected, Severity::Stop)] : [];

        return new AsfFile($this->bytes, $this->tracks, $this->streams, $this->pictures, $packets, $this->tags, $diagnostics);
    }

    /** @throws BytesMissing */
    private function object(string $name, string $body, int $at): void
    {
        $cursor = new Cursor($body, $this->bytes->name(), $at);
        match (true) {
            $name === self::FILE && strlen($body) >= 76 => $this->file($cursor),
            $name === self::STREAM && strlen($body) >= 54 => $this->described[] = $body,
            $name === self::DESCRIPTION && strlen($body) >= 10 => $this->description($cursor),
            $name === self::MORE && strlen($body) >= 2 => $this->more($cursor),
            $name === self::ENCRYPTION => $this->protected = true,
            default => null,
        };
    }

    /**
     * 3.2: length in units of 100 ns, run-in in milliseconds, size of all packets.
     *
     * @throws BytesMissing
     */
    private function file(Cursor $cursor): void
    {
        $length = $cursor->skip(40)->u64le();
        $this->runIn = $cursor->skip(8)->u64le();
        $this->seconds = max(0.0, $length / 1e7 - $this->runIn / 1000);
        $this->packetBytes = $cursor->skip(4)->u32le();
    }

    /**
     * The data object follows the header: identity, length, then the file's identity, the number of packets and two bytes more (section
     * 5.1).
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function packets(int $at): AsfPackets
    {
        $size = $this->bytes->size();
        if ($at + 50 > $size || $this->bytes->read($at, 16) !== self::DATA) {
            return new AsfPackets($this->bytes, $size, $size, 0);
        }
        $cursor = new Cursor($this->bytes->read($at + 16, 32), $this->bytes->name(), $at + 16);
        $length = $cursor->u64le();
        $count = $cursor->skip(16)->u64le();
        $from = $at + 50;
        // Recorders that were stopped hard leave both numbers at nothing.
        $end = $length > 50 ? min($size, $at + $length) : $size;
        if ($count > 0 && $this->packetBytes > 0 && $count <= intdiv($end - $from, $this->packetBytes)) {
            $end = $from + $count * $this->packetBytes;
        }

        return new AsfPackets($this->bytes, $from, $end, $this->packetBytes <= self::MOST_OBJECT ? $this->packetBytes : 0);
    }

    /**
     * 3.3: kind, kind of error correction, lengths of both, number of the stream.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function stream(string $body, AsfPackets $packets): void
    {
        $kind = substr($body, 0, 16);
        $cursor = new Cursor($body, $this->bytes->name(), 0);
        $bytes = $cursor->skip(40)->u32le();
        $correctionBytes = $cursor->u32le();
        $stream = $cursor->u16le() & 0x7F;
        $facts = substr($body, 54);
        $number = count($this->tracks) + 1;
        if ($kind === self::SOUND && strlen($facts) >= 16) {
            $correction = substr($body, 16, 16) === self::SPREAD && $correctionBytes >= 5 && $bytes + 5 <= strlen($facts)
                ? new Cursor(substr($facts, $bytes)) : null;
            $format = FormatChunk::parse(substr($facts, 0, max(16, $bytes)), $this->bytes->name(), 0);
            $this->streams[$number] = new AsfStream($stream, $format, $correction?->u8() ?? 1, $correction?->skip(2)->u16le() ?? 0);
            $this->tracks[] = $this->sound($number, $this->streams[$number], $packets);
        } elseif ($kind === self::PICTURE && strlen($facts) >= 51) {
            $this->tracks[] = $this->picture($number, $stream, $facts, $packets);
        }
    }

    /**
     * 9.2: width and height of the window, a flag, the length of the bitmap header, that header.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function picture(int $number, int $stream, string $facts, AsfPackets $packets): Track
    {
        $bitmap = BitmapHeader::parse(substr($facts, 11, (new Cursor($facts))->skip(9)->u16le()));
        if ($bitmap === null) {
            return Track::picture($number, new VideoFormat(Codec::Unknown, 'pictures', 0, 0, 0.0, 0.0, $this->seconds), 0);
        }
        $this->pictures[$number] = new AsfPicture($stream, $bitmap);
        [$starts, $perSecond] = $this->firstPictures($packets, $stream);

        return Track::picture($number, new VideoFormat($bitmap->codec(), $bitmap->label(), $bitmap->width, $bitmap->height, $perSecond,
            $starts, max(0.0, $this->seconds - $starts)), 0);
    }

    /**
     * @return array{float, float} seconds before the first picture, pictures a second (0 where that cannot be told)
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function firstPictures(AsfPackets $packets, int $stream): array
    {
        $times = [];
        foreach ($packets->objects($stream) as $object) {
            $times[] = $object->time;
            if (count($times) >= self::FIRST_PICTURES) {
                break;
            }
        }
        $span = $times === [] ? 0 : max($times) - min($times);

        return [$times === [] ? 0.0 : max(0, min($times) - $this->runIn) / 1000,
            $span > 0 ? round((count($times) - 1) * 1000 / $span, 3) : 0.0];
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function sound(int $number, AsfStream $stream, AsfPackets $packets): Track
    {
        $audio = $stream->format->audio;
        $first = self::first($packets, $stream);
        if ($first === null) {
            return Track::sound($number, $audio, Timeline::plain((int) round($this->seconds * $audio->rate)),
                (int) ($this->seconds * $stream->format->bytesPerSecond));
        }
        $framing = FrameParsers::for($audio->codec);
        $frame = $stream->inOrder($first->data);
        if ($framing?->at(substr($frame, 0, $framing->headBytes())) !== null) {
            $audio = $framing->audio(str_pad($frame, 16, "\0"));
        }
        $samples = $this->length($packets, $stream, $audio, $first);
        $starts = AsfFile::sample(max(0, $first->time - $this->runIn), $audio);

        return Track::sound($number, $audio, Timeline::edited($starts, [Segment::media(0, $samples)], $samples),
            (int) ($samples / $audio->rate * $stream->format->bytesPerSecond));
    }

    /**
     * Samples of all packets: where times tell them, the last time is enough.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function length(AsfPackets $packets, AsfStream $stream, AudioFormat $audio, AsfObject $first): int
    {
        if (FrameParsers::for($audio->codec) === null && $audio->pcm === null && $audio->frameLength === 0
            && $stream->format->blockSamples === 0) {
            foreach ([max(0, $packets->count() - self::LAST_PACKETS), 0] as $from) {
                $last = null;
                foreach ($packets->objects($stream->number, $from) as $object) {
                    $last = $object;
                }
                if ($last !== null) {
                    return max(0, AsfFile::sample($last->time - $first->time, $audio))
                        + AsfFile::lasts(strlen($last->data), $stream, $audio);
                }
            }
        }
        $samples = 0;
        foreach (AsfFile::read($packets, $stream, $audio) as $packet) {
            $samples = $packet->start + $packet->length;
        }

        return $samples;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function first(AsfPackets $packets, AsfStream $stream): ?AsfObject
    {
        foreach ($packets->objects($stream->number) as $object) {
            return $object;
        }

        return null;
    }

    /**
     * 3.10: title, author, copyright, description, rating.
     *
     * @throws BytesMissing
     */
    private function description(Cursor $cursor): void
    {
        $lengths = [$cursor->u16le(), $cursor->u16le(), $cursor->u16le(), $cursor->u16le()];
        $cursor->skip(2);
        foreach ([TagField::Title, TagField::Artist, TagField::Copyright, TagField::Comment] as $index => $field) {
            if ($lengths[$index] > $cursor->remaining()) {
                return;
            }
            $this->tags = $this->tags->with($field, self::text($cursor->take($lengths[$index])));
        }
    }

    /**
     * 3.11
     *
     * @throws BytesMissing
     */
    private function more(Cursor $cursor): void
    {
        for ($count = min(1000, $cursor->u16le()); $count > 0 && $cursor->remaining() >= 6; $count--) {
            $name = self::text($cursor->take(min($cursor->remaining(), $cursor->u16le())));
            if ($cursor->remaining() < 4) {
                return;
            }
            $type = $cursor->u16le();
            $value = $cursor->take(min($cursor->remaining(), $cursor->u16le()));
            if (isset(self::NAMES[$name])) {
                $this->tags = $this->tags->adding(self::NAMES[$name], $type === 0 ? self::text($value)
                    : (string) (strlen($value) >= 4 ? (new Cursor($value))->u32le() : ''));
            } elseif ($name === 'WM/Picture' && $this->tags->cover === null) {
                $this->tags = $this->tags->withCover(Cover::within($value, strlen($value)));
            }
        }
    }

    private static function text(string $bytes): string
    {
        return rtrim((string) mb_convert_encoding($bytes, 'UTF-8', 'UTF-16LE'), "\0");
    }
}
