<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Asf;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Codec\Codec;
use Octavox\Core\Container\Media;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\PictureForm;
use Octavox\Core\Container\Remark;
use Octavox\Core\Container\RemarkWeight;
use Octavox\Core\Container\Timeline;
use Octavox\Core\Container\Track;
use Octavox\Core\Container\Wave\FormatChunk;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** Reads the header objects: streams, length, tags, protection. */
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

    private const MOST_OBJECT = 32 * 1024 * 1024;

    private const NAMES = [
        'WM/AlbumTitle' => TagField::Album, 'WM/AlbumArtist' => TagField::AlbumArtist, 'WM/TrackNumber' => TagField::Track, 'WM/PartOfSet' => TagField::Disc,
        'WM/Year' => TagField::Year, 'WM/Genre' => TagField::Genre,
    ];

    private Tags $tags;

    private float $seconds = 0.0;

    /** @var list<Track> */
    private array $tracks = [];

    /** @var list<array{string, string}> kind and facts of each stream */
    private array $streams = [];

    private bool $protected = false;

    public function __construct(private readonly ByteSource $bytes)
    {
        $this->tags = Tags::none();
    }

    public function read(): Media
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
        foreach ($this->streams as [$kind, $facts]) {
            $this->stream($kind, $facts);
        }
        if ($this->tracks === []) {
            throw NoTracks::at($this->bytes->name());
        }
        $remarks = $this->protected ? [new Remark('protected', RemarkWeight::Stop, 'This recording is protected against copying, so its sound cannot be used here.', 'Ask whoever sold it for a copy without protection.')] : [];

        return new AsfFile($this->bytes, $this->tracks, $this->tags, $remarks);
    }

    private function object(string $name, string $body, int $at): void
    {
        $cursor = new Cursor($body, $this->bytes->name(), $at);
        match (true) {
            // 3.2: length in units of 100 ns, run-in in milliseconds
            $name === self::FILE && strlen($body) >= 64 => $this->seconds = max(0.0, $cursor->skip(40)->u64le() / 1e7 - $cursor->skip(8)->u64le() / 1000),
            $name === self::STREAM && strlen($body) >= 54 => $this->streams[] = [substr($body, 0, 16), substr($body, 54)],
            $name === self::DESCRIPTION && strlen($body) >= 10 => $this->description($cursor),
            $name === self::MORE && strlen($body) >= 2 => $this->more($cursor),
            $name === self::ENCRYPTION => $this->protected = true,
            default => null,
        };
    }

    private function stream(string $kind, string $facts): void
    {
        $number = count($this->tracks) + 1;
        if ($kind === self::SOUND && strlen($facts) >= 16) {
            $format = FormatChunk::parse($facts, $this->bytes->name(), 0);
            $this->tracks[] = Track::sound($number, $format->form, Timeline::plain((int) round($this->seconds * $format->form->rate)), (int) ($this->seconds * $format->bytesPerSecond));
        } elseif ($kind === self::PICTURE && strlen($facts) >= 51) {
            $cursor = new Cursor($facts);
            $width = $cursor->u32le();
            $height = $cursor->u32le();
            $codec = (string) preg_replace('/[^\x20-\x7E]/', '', $cursor->skip(19)->take(4));
            $this->tracks[] = Track::picture($number, new PictureForm(Codec::Unknown, match ($codec) {
                'WMV1', 'WMV2', 'WMV3', 'WMVA', 'WVC1' => 'Windows Media Video',
                default => $codec === '' ? 'pictures' : $codec,
            }, $width & 0xFFFF, $height & 0xFFFF, 0.0, 0.0, $this->seconds), 0);
        }
    }

    /** 3.10: title, author, copyright, description, rating. */
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

    /** 3.11 */
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
                $this->tags = $this->tags->with(self::NAMES[$name], $type === 0 ? self::text($value) : (string) (strlen($value) >= 4 ? (new Cursor($value))->u32le() : ''));
            } elseif ($name === 'WM/Picture' && $this->tags->cover === null) {
                $begin = strpos($value, "\xFF\xD8\xFF");
                $begin = $begin === false ? strpos($value, "\x89PNG") : $begin;
                $this->tags = $begin === false ? $this->tags : $this->tags->withCover(Cover::recognise(substr($value, $begin)));
            }
        }
    }

    private static function text(string $bytes): string
    {
        return rtrim((string) mb_convert_encoding($bytes, 'UTF-8', 'UTF-16LE'), "\0");
    }
}
