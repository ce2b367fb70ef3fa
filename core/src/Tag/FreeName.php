<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/**
 * Names of fields that only go by a name: in capitals as the comments of Ogg have them, in words where ID3 and MP4 have the same in words.
 */
final class FreeName
{
    /** Identifiers of public catalogues of music, by their names among comments. */
    private const WORDS = [
        'MUSICBRAINZ_ALBUMID' => 'MusicBrainz Album Id',
        'MUSICBRAINZ_ARTISTID' => 'MusicBrainz Artist Id',
        'MUSICBRAINZ_ALBUMARTISTID' => 'MusicBrainz Album Artist Id',
        'MUSICBRAINZ_RELEASEGROUPID' => 'MusicBrainz Release Group Id',
        'MUSICBRAINZ_RELEASETRACKID' => 'MusicBrainz Release Track Id',
        'MUSICBRAINZ_WORKID' => 'MusicBrainz Work Id',
        'MUSICBRAINZ_DISCID' => 'MusicBrainz Disc Id',
        'MUSICBRAINZ_TRACKID' => 'MusicBrainz Track Id',
        'RELEASESTATUS' => 'MusicBrainz Album Status',
        'RELEASETYPE' => 'MusicBrainz Album Type',
        'RELEASECOUNTRY' => 'MusicBrainz Album Release Country',
        'ACOUSTID_ID' => 'Acoustid Id',
        'ACOUSTID_FINGERPRINT' => 'Acoustid Fingerprint',
    ];

    /** What is about the coding of one file, and would say something wrong in another. */
    private const TECHNICAL =
        '/^(iTun|ENCODER$|ENCODER_|WAVEFORMATEXTENSIBLE|METADATA_BLOCK_PICTURE$|COVERART'
        .'|CHAPTER\d|MAJOR_BRAND$|MINOR_VERSION$|COMPATIBLE_BRANDS$'
            .'|DURATION$|BPS$|NUMBER_OF_|_STATISTICS|HANDLER_NAME$|VENDOR_ID$|LAME|MP3GAIN|CDDB)/i';

    private const MOST_BYTES = 128;

    /** The name in capitals; null where the field is not carried. */
    public static function clean(string $name): ?string
    {
        $name = trim($name);
        if ($name === '' || strlen($name) > self::MOST_BYTES || preg_match(self::TECHNICAL, $name) === 1) {
            return null;
        }
        foreach (self::WORDS as $comment => $words) {
            if (strcasecmp($name, $words) === 0) {
                return $comment;
            }
        }
        // Vorbis I specification, 5.2.1: printable ASCII without the sign of equality
        $clean = (string) preg_replace('/[^\x20-\x3C\x3E-\x7D]/', '', strtoupper($name));

        return $clean === '' ? null : $clean;
    }

    /** The name as ID3 and MP4 have it. */
    public static function inWords(string $comment): string
    {
        return self::WORDS[$comment] ?? $comment;
    }
}
