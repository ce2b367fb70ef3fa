<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** What a tag tells that has a name of its own in every kind of tag; everything else goes by its name among the comments of Ogg. */
enum TagField: string
{
    case Title = 'title';
    case Artist = 'artist';
    case Album = 'album';
    case AlbumArtist = 'album_artist';
    case Track = 'track';
    case Disc = 'disc';
    case Year = 'year';
    case Genre = 'genre';
    case Comment = 'comment';
    case Copyright = 'copyright';
    case Composer = 'composer';
    case Lyricist = 'lyricist';
    case Conductor = 'conductor';
    case Remixer = 'remixer';
    case Publisher = 'publisher';
    case Isrc = 'isrc';
    case Lyrics = 'lyrics';
    case Language = 'language';
    case Grouping = 'grouping';
    case Subtitle = 'subtitle';
    case Tempo = 'tempo';
    case Key = 'key';
    case Mood = 'mood';
    case OriginalYear = 'original_year';
    case Compilation = 'compilation';
    case EncodedBy = 'encoded_by';
    case TitleSort = 'title_sort';
    case ArtistSort = 'artist_sort';
    case AlbumSort = 'album_sort';
    case AlbumArtistSort = 'album_artist_sort';
    case ComposerSort = 'composer_sort';

    /** Frame name: id3.org, ID3v2.4.0 Native Frames, section 4; TCMP, TSO2 and TSOC in common use. */
    public function id3(): string
    {
        return match ($this) {
            self::Title => 'TIT2',
            self::Artist => 'TPE1',
            self::Album => 'TALB',
            self::AlbumArtist => 'TPE2',
            self::Track => 'TRCK',
            self::Disc => 'TPOS',
            self::Year => 'TDRC',
            self::Genre => 'TCON',
            self::Comment => 'COMM',
            self::Copyright => 'TCOP',
            self::Composer => 'TCOM',
            self::Lyricist => 'TEXT',
            self::Conductor => 'TPE3',
            self::Remixer => 'TPE4',
            self::Publisher => 'TPUB',
            self::Isrc => 'TSRC',
            self::Lyrics => 'USLT',
            self::Language => 'TLAN',
            self::Grouping => 'TIT1',
            self::Subtitle => 'TIT3',
            self::Tempo => 'TBPM',
            self::Key => 'TKEY',
            self::Mood => 'TMOO',
            self::OriginalYear => 'TDOR',
            self::Compilation => 'TCMP',
            self::EncodedBy => 'TENC',
            self::TitleSort => 'TSOT',
            self::ArtistSort => 'TSOP',
            self::AlbumSort => 'TSOA',
            self::AlbumArtistSort => 'TSO2',
            self::ComposerSort => 'TSOC',
        };
    }

    /**
     * Chunk name: Multimedia Programming Interface and Data Specifications 1.0, INFO list, and names in common use; null where there is
     * none.
     */
    public function riff(): ?string
    {
        return match ($this) {
            self::Title => 'INAM',
            self::Artist => 'IART',
            self::Album => 'IPRD',
            self::Track => 'ITRK',
            self::Year => 'ICRD',
            self::Genre => 'IGNR',
            self::Comment => 'ICMT',
            self::Copyright => 'ICOP',
            self::Composer => 'IMUS',
            self::Lyricist => 'IWRI',
            self::Language => 'ILNG',
            self::EncodedBy => 'ITCH',
            default => null,
        };
    }

    /** Item name in `ilst`; null where it is a free-form item of its name among the comments of Ogg. */
    public function item(): ?string
    {
        return match ($this) {
            self::Title => "\xA9nam",
            self::Artist => "\xA9ART",
            self::Album => "\xA9alb",
            self::AlbumArtist => 'aART',
            self::Track => 'trkn',
            self::Disc => 'disk',
            self::Year => "\xA9day",
            self::Genre => "\xA9gen",
            self::Comment => "\xA9cmt",
            self::Copyright => 'cprt',
            self::Composer => "\xA9wrt",
            self::Lyrics => "\xA9lyr",
            self::Grouping => "\xA9grp",
            self::Tempo => 'tmpo',
            self::Compilation => 'cpil',
            self::TitleSort => 'sonm',
            self::ArtistSort => 'soar',
            self::AlbumSort => 'soal',
            self::AlbumArtistSort => 'soaa',
            self::ComposerSort => 'soco',
            default => null,
        };
    }

    /**
     * Names among the comments of Ogg and FLAC, the one that is written first.
     *
     * @return non-empty-list<string>
     */
    public function vorbis(): array
    {
        return match ($this) {
            self::AlbumArtist => ['ALBUMARTIST', 'ALBUM ARTIST'],
            self::Track => ['TRACKNUMBER', 'TRACK'],
            self::Disc => ['DISCNUMBER', 'DISC'],
            self::Year => ['DATE', 'YEAR'],
            self::Comment => ['COMMENT', 'DESCRIPTION'],
            self::Publisher => ['PUBLISHER', 'LABEL', 'ORGANIZATION'],
            self::Lyrics => ['LYRICS', 'UNSYNCEDLYRICS'],
            self::Tempo => ['BPM', 'TEMPO'],
            self::Key => ['INITIALKEY', 'KEY'],
            self::OriginalYear => ['ORIGINALDATE', 'ORIGINALYEAR'],
            self::EncodedBy => ['ENCODED-BY', 'ENCODEDBY'],
            self::TitleSort => ['TITLESORT'],
            self::ArtistSort => ['ARTISTSORT'],
            self::AlbumSort => ['ALBUMSORT'],
            self::AlbumArtistSort => ['ALBUMARTISTSORT'],
            self::ComposerSort => ['COMPOSERSORT'],
            default => [strtoupper($this->value)],
        };
    }

    /** Name in the tags of Matroska (its tag registry, RFC 9559 companion) for a whole file. */
    public function matroska(): string
    {
        return match ($this) {
            self::AlbumArtist => 'ALBUM_ARTIST',
            self::Track => 'PART_NUMBER',
            self::Year => 'DATE_RELEASED',
            self::Remixer => 'REMIXED_BY',
            self::Tempo => 'BPM',
            self::Key => 'INITIAL_KEY',
            self::OriginalYear => 'ORIGINAL_DATE',
            default => strtoupper($this->value),
        };
    }

    /** Item name in an APEv2 tag. */
    public function ape(): string
    {
        return match ($this) {
            self::AlbumArtist => 'Album Artist',
            self::Isrc => 'ISRC',
            self::Tempo => 'BPM',
            self::Key => 'KEY',
            self::Remixer => 'MixArtist',
            self::OriginalYear, self::TitleSort, self::ArtistSort, self::AlbumSort, self::AlbumArtistSort, self::ComposerSort,
            self::EncodedBy => $this->vorbis()[0],
            default => ucfirst($this->value),
        };
    }

    public function label(): string
    {
        return match ($this) {
            self::Isrc => 'ISRC',
            default => ucfirst(str_replace('_', ' ', $this->value)),
        };
    }

    /** The field of a name among the comments of Ogg; null where it has none of its own. */
    public static function ofComment(string $name): ?self
    {
        static $known = [];
        if ($known === []) {
            foreach (self::cases() as $field) {
                $known += array_fill_keys($field->vorbis(), $field);
            }
        }

        return $known[strtoupper($name)] ?? null;
    }
}
