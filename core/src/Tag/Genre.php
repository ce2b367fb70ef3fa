<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** Genres that old tags count: id3.org, ID3v1 and its extensions. */
final class Genre
{
    private const NAMES = [
        'Blues', 'Classic Rock', 'Country', 'Dance', 'Disco', 'Funk', 'Grunge', 'Hip-Hop', 'Jazz', 'Metal', 'New Age', 'Oldies', 'Other',
        'Pop', 'R&B', 'Rap', 'Reggae', 'Rock',
        'Techno', 'Industrial', 'Alternative', 'Ska', 'Death Metal', 'Pranks', 'Soundtrack', 'Euro-Techno', 'Ambient', 'Trip-Hop', 'Vocal',
        'Jazz+Funk', 'Fusion', 'Trance',
        'Classical', 'Instrumental', 'Acid', 'House', 'Game', 'Sound Clip', 'Gospel', 'Noise', 'Alt. Rock', 'Bass', 'Soul', 'Punk', 'Space',
        'Meditative', 'Instrumental Pop',
        'Instrumental Rock', 'Ethnic', 'Gothic', 'Darkwave', 'Techno-Industrial', 'Electronic', 'Pop-Folk', 'Eurodance', 'Dream',
        'Southern Rock', 'Comedy', 'Cult', 'Gangsta Rap',
        'Top 40', 'Christian Rap', 'Pop/Funk', 'Jungle', 'Native American', 'Cabaret', 'New Wave', 'Psychedelic', 'Rave', 'Showtunes',
        'Trailer', 'Lo-Fi', 'Tribal', 'Acid Punk',
        'Acid Jazz', 'Polka', 'Retro', 'Musical', 'Rock & Roll', 'Hard Rock', 'Folk', 'Folk-Rock', 'National Folk', 'Swing', 'Fast-Fusion',
        'Bebop', 'Latin', 'Revival', 'Celtic',
        'Bluegrass', 'Avantgarde', 'Gothic Rock', 'Progressive Rock', 'Psychedelic Rock', 'Symphonic Rock', 'Slow Rock', 'Big Band',
        'Chorus', 'Easy Listening', 'Acoustic', 'Humour',
        'Speech', 'Chanson', 'Opera', 'Chamber Music', 'Sonata', 'Symphony', 'Booty Bass', 'Primus', 'Porn Groove', 'Satire', 'Slow Jam',
        'Club', 'Tango', 'Samba', 'Folklore',
        'Ballad', 'Power Ballad', 'Rhythmic Soul', 'Freestyle', 'Duet', 'Punk Rock', 'Drum Solo', 'A Cappella', 'Euro-House', 'Dance Hall',
        'Goa', 'Drum & Bass', 'Club-House',
        'Hardcore', 'Terror', 'Indie', 'BritPop', 'Afro-Punk', 'Polsk Punk', 'Beat', 'Christian Gangsta Rap', 'Heavy Metal', 'Black Metal',
        'Crossover', 'Contemporary Christian',
        'Christian Rock', 'Merengue', 'Salsa', 'Thrash Metal', 'Anime', 'JPop', 'Synthpop', 'Abstract', 'Art Rock', 'Baroque', 'Big Beat',
        'Breakbeat', 'Chillout', 'Downtempo',
        'Dub', 'EBM', 'Eclectic', 'Electro', 'Electroclash', 'Emo', 'Experimental', 'Garage', 'Global', 'IDM', 'Illbient', 'Industro-Goth',
        'Jam Band', 'Krautrock', 'Leftfield',
        'Lounge', 'Math Rock', 'New Romantic', 'Nu-Breakz', 'Post-Punk', 'Post-Rock', 'Psytrance', 'Shoegaze', 'Space Rock', 'Trop Rock',
        'World Music', 'Neoclassical', 'Audiobook',
        'Audio Theatre', 'Neue Deutsche Welle', 'Podcast', 'Indie Rock', 'G-Funk', 'Dubstep', 'Garage Rock', 'Psybient',
    ];

    /** Empty where no genre has the number. */
    public static function named(int $number): string
    {
        return self::NAMES[$number] ?? '';
    }

    /**
     * The words of a genre frame: `12`, `(12)`, `(4)(17)Refined`, `RX` for a remix, `CR` for a cover (ID3v2.3, 4.2.1).
     *
     * @return list<string>
     */
    public static function words(string $text): array
    {
        $words = [];
        while (preg_match('/^\((\d{1,3}|RX|CR)\)/', $text, $match) === 1) {
            $words[] = self::word($match[1]);
            $text = substr($text, strlen($match[0]));
        }
        $text = str_starts_with($text, '((') ? substr($text, 1) : $text;
        $rest = self::word(trim($text));

        return array_values(array_unique(array_filter([...$words, $rest], fn (string $word): bool => $word !== '')));
    }

    private static function word(string $text): string
    {
        return match (true) {
            $text === 'RX' => 'Remix',
            $text === 'CR' => 'Cover',
            preg_match('/^\d{1,3}$/', $text) === 1 && self::named((int) $text) !== '' => self::named((int) $text),
            default => $text,
        };
    }
}
