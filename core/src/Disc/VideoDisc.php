<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\JoinedBytes;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Mpeg\ElementaryReader;
use Octavox\Core\Container\Mpeg\ElementaryTrack;
use Octavox\Core\Container\ProgramStream\ProgramFormat;
use Octavox\Core\Failure;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** A video disc, as an image or as a folder: its titles, and each of them as a recording that can be read. */
final class VideoDisc
{
    private const HEAD = 'DVDVIDEO-VMG';

    private const SECTOR = 2048;

    /** Where the table of contents says in which sector the table of titles stands. */
    private const TITLES = 0xC4;

    private const MOST_TITLES = 99;

    private const MOST_SETS = 99;

    private const MOST_TABLE = 1 << 20;

    /** A title set has so many files of sound and pictures at most. */
    private const MOST_PARTS = 9;

    /** Sectors of a title that are looked at for signs of encryption. */
    private const PROBES = 400;

    /** Seconds that a title lasts at least which somebody would take: shorter ones stand for menus. */
    private const BRIEF = 1.0;

    /** @var array<int, ?TitleSet> */
    private array $sets = [];

    /** @param  list<array{int, int, int}>  $titles  number of angles, of the title set, and of the title in it */
    private function __construct(private readonly DiscFiles $files, private readonly string $path, private readonly array $titles) {}

    /**
     * Whether the bytes are an image of a disc, or the first file of a disc that was copied as a folder.
     *
     * @throws Failure
     */
    public static function isOne(ByteSource $bytes): bool
    {
        return self::files($bytes) !== null;
    }

    /**
     * The titles that a file holds, of those that last long enough to be meant.
     *
     * @return list<DiscTitle> empty where it is no disc
     *
     * @throws Failure
     */
    public static function titlesIn(string $path): array
    {
        $bytes = FileBytes::open($path);
        $titles = self::isOne($bytes) ? self::open($bytes)->titles() : [];
        $long = array_values(array_filter($titles, fn (DiscTitle $title): bool => $title->seconds() >= self::BRIEF));

        return $long === [] ? $titles : $long;
    }

    /** @throws Failure */
    public static function open(ByteSource $bytes): self
    {
        $files = self::files($bytes) ?? throw DiscUnusable::noVideo($bytes->name());
        $first = self::table($files, 'VIDEO_TS', self::HEAD);
        if ($first === null) {
            throw $files->file(DiscFolder::FIRST) === null && $files->file('VIDEO_TS.BUP') === null ? DiscUnusable::noVideo($bytes->name())
                : DiscUnusable::damaged($bytes->name(), DiscFolder::FIRST);
        }
        $titles = [];
        $at = self::number($first, self::TITLES) * self::SECTOR;
        for ($index = 0, $count = $at > 0 ? self::number($first, $at) >> 16 : 0; $index < min($count, self::MOST_TITLES); $index++) {
            $entry = substr($first, $at + 8 + 12 * $index, 12);
            if (strlen($entry) === 12 && ord($entry[6]) >= 1 && ord($entry[6]) <= self::MOST_SETS) {
                $titles[] = [max(1, ord($entry[1])), ord($entry[6]), ord($entry[7])];
            }
        }

        return new self($files, $bytes->name(), $titles);
    }

    /** What the disc is called, in words; empty where nothing says it. */
    public function label(): string
    {
        return self::words($this->files->label());
    }

    /**
     * All titles of which the tables tell anything.
     *
     * @return list<DiscTitle>
     *
     * @throws Failure
     */
    public function titles(): array
    {
        $titles = [];
        foreach (array_keys($this->titles) as $index) {
            $title = $this->title($index + 1);
            if ($title !== null && $title->cells !== []) {
                $titles[] = $title;
            }
        }
        if ($titles === []) {
            throw $this->titles === [] ? DiscUnusable::damaged($this->path, DiscFolder::FIRST) : $this->missing($this->titles[0][1]);
        }

        return $titles;
    }

    /**
     * The title that lasts longest.
     *
     * @throws Failure
     */
    public function longest(): DiscTitle
    {
        $titles = $this->titles();
        usort($titles, fn (DiscTitle $a, DiscTitle $b): int => $b->seconds() <=> $a->seconds() ?: $a->number <=> $b->number);

        return $titles[0];
    }

    /**
     * A title as a recording, with the chapters and the sound tracks that the disc names.
     *
     * @throws Failure
     */
    public function media(int $number): Demuxer
    {
        $title = $this->title($number) ?? throw DiscUnusable::noTitle($this->path, $number, count($this->titles));
        if ($title->cells === []) {
            throw $this->missing($title->set);
        }
        $packets = TitlePackets::of($this->path, $title, $this->parts($title->set));
        if ($packets->bytes()->size() === 0) {
            throw DiscUnusable::empty($this->path, $number);
        }
        if (self::isProtected($packets->bytes())) {
            throw DiscUnusable::protected($this->path);
        }
        $tracks = [ProgramFormat::track(0xE0, $packets->bytes()->read(0, min($packets->bytes()->size(), 64 * self::SECTOR)))];
        foreach ($title->sounds as $sound) {
            $tracks[] = ProgramFormat::track($sound->stream, '', $sound->language, $sound->purpose);
        }
        $tags = $this->label() === '' ? Tags::none() : Tags::none()->with(TagField::Album, $this->label());

        $tracks = array_values(array_filter($tracks, fn (?ElementaryTrack $track): bool => $track !== null));
        foreach ($tracks as $track) {
            $track->mayOverlap = true;
        }

        return (new ElementaryReader('dvd-video', $packets, $tracks, $packets->chapters(), $tags, $packets->diagnostics()))->read();
    }

    /**
     * What is said of a title set whose tables cannot be read.
     *
     * @throws Failure
     */
    private function missing(int $set): DiscUnusable
    {
        $name = sprintf('VTS_%02d_0.IFO', $set);

        return $this->files instanceof DiscFolder && $this->files->file($name) === null ? DiscUnusable::apart($this->path)
            : DiscUnusable::damaged($this->path, $name);
    }

    /** @throws Failure */
    private function title(int $number): ?DiscTitle
    {
        [$angles, $set, $within] = $this->titles[$number - 1] ?? [0, 0, 0];
        if ($set === 0) {
            return null;
        }
        if (! array_key_exists($set, $this->sets)) {
            $this->sets[$set] = self::titleSet($this->files, $set);
        }

        return new DiscTitle($number, $set, $angles, $this->sets[$set]?->cells($within) ?? [], $this->sets[$set]?->sounds($within) ?? []);
    }

    /**
     * Sound and pictures of a title set: files that go on in each other.
     *
     * @throws Failure
     */
    private function parts(int $set): JoinedBytes
    {
        $stretches = [];
        for ($part = 1; $part <= self::MOST_PARTS; $part++) {
            $file = $this->files->file(sprintf('VTS_%02d_%d.VOB', $set, $part));
            if ($file === null) {
                break;
            }
            $stretches[] = Stretch::in($file, 0, $file->size());
        }

        return new JoinedBytes($this->path, $stretches);
    }

    /**
     * Whether a packet says that its content is encrypted: ISO/IEC 13818-1, 2.4.3.7, PES_scrambling_control.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function isProtected(ByteSource $bytes): bool
    {
        $sectors = intdiv($bytes->size(), self::SECTOR);
        for ($probe = 0, $count = min(self::PROBES, $sectors); $probe < $count; $probe++) {
            // Half of them at the start, the others all over the title: menus and warnings are often open.
            $sector = $probe < intdiv($count, 2) ? $probe : intdiv($sectors * $probe, $count);
            $head = $bytes->read($sector * self::SECTOR, 32);
            $at = str_starts_with($head, "\0\0\1\xBA") ? 14 + (ord($head[13]) & 7) : 0;
            $stream = ord($head[$at + 3] ?? "\0");
            $isMedia = substr($head, $at, 3) === "\0\0\1" && ($stream === 0xBD || $stream >= 0xC0 && $stream <= 0xEF);
            if ($isMedia && (ord($head[$at + 6]) & 0xC0) === 0x80 && (ord($head[$at + 6]) & 0x30) !== 0) {
                return true;
            }
        }

        return false;
    }

    /** @throws Failure */
    private static function files(ByteSource $bytes): ?DiscFiles
    {
        $folder = DiscFolder::open($bytes);
        if ($folder !== null) {
            return $folder;
        }
        // A disc that has both file systems means the same files; the one that knows them is taken.
        $plain = Iso9660::open($bytes);

        return $plain?->file(DiscFolder::FIRST) !== null ? $plain : Udf::open($bytes) ?? $plain;
    }

    /** @throws Failure */
    private static function titleSet(DiscFiles $files, int $number): ?TitleSet
    {
        foreach (['IFO', 'BUP'] as $extension) {
            $file = $files->file(sprintf('VTS_%02d_0.%s', $number, $extension));
            $set = $file === null ? null : TitleSet::open($file);
            if ($set !== null) {
                return $set;
            }
        }

        return null;
    }

    /**
     * A table, or its copy on the disc where it is damaged.
     *
     * @throws Failure
     */
    private static function table(DiscFiles $files, string $name, string $head): ?string
    {
        foreach (['IFO', 'BUP'] as $extension) {
            $file = $files->file($name.'.'.$extension);
            $bytes = $file === null ? '' : $file->read(0, min($file->size(), self::MOST_TABLE));
            if (strlen($bytes) >= self::SECTOR && str_starts_with($bytes, $head)) {
                return $bytes;
            }
        }

        return null;
    }

    private static function number(string $bytes, int $at): int
    {
        return strlen($bytes) < $at + 4 ? 0 : (int) (unpack('N', $bytes, $at)[1] ?? 0);
    }

    /** Labels of discs are in capitals, with strokes for spaces. */
    private static function words(string $label): string
    {
        return preg_match('/^[A-Z0-9_ ]+$/', $label) === 1 ? ucwords(strtolower(trim(str_replace('_', ' ', $label)))) : $label;
    }
}
