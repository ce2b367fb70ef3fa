<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** What a tag tells. The four columns are its name in ID3v2.4, RIFF INFO and the item list of MP4. */
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

    /** Frame name: id3.org, ID3v2.4.0 Native Frames, section 4. */
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
        };
    }

    /** Chunk name: Multimedia Programming Interface and Data Specifications 1.0, INFO list; null where there is none. */
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
            self::AlbumArtist, self::Disc => null,
        };
    }

    /** Item name in `ilst`. */
    public function item(): string
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
            self::Title => ['TITLE'],
            self::Artist => ['ARTIST'],
            self::Album => ['ALBUM'],
            self::AlbumArtist => ['ALBUMARTIST', 'ALBUM ARTIST'],
            self::Track => ['TRACKNUMBER', 'TRACK'],
            self::Disc => ['DISCNUMBER', 'DISC'],
            self::Year => ['DATE', 'YEAR'],
            self::Genre => ['GENRE'],
            self::Comment => ['COMMENT', 'DESCRIPTION'],
            self::Copyright => ['COPYRIGHT'],
        };
    }

    /** Name in the tags of Matroska (its tag registry, RFC 9559 companion) for a whole file. */
    public function matroska(): string
    {
        return match ($this) {
            self::Title => 'TITLE',
            self::Artist => 'ARTIST',
            self::Album => 'ALBUM',
            self::AlbumArtist => 'ALBUM_ARTIST',
            self::Track => 'PART_NUMBER',
            self::Disc => 'DISC',
            self::Year => 'DATE_RELEASED',
            self::Genre => 'GENRE',
            self::Comment => 'COMMENT',
            self::Copyright => 'COPYRIGHT',
        };
    }

    /** Item name in an APEv2 tag. */
    public function ape(): string
    {
        return match ($this) {
            self::AlbumArtist => 'Album Artist',
            default => ucfirst($this->value),
        };
    }

    public function label(): string
    {
        return match ($this) {
            self::AlbumArtist => 'Album artist',
            default => ucfirst($this->value),
        };
    }
}
