<?php

declare(strict_types=1);

namespace App\Outside\Catalogue;

/** What a sound or a disc may be, in the words of a catalogue. Nothing of it is believed beyond its length. */
final readonly class Candidate
{
    /** Fields that are taken, and their names for people. */
    public const FIELDS = ['title' => 'Title', 'artist' => 'Artist', 'album' => 'Album', 'album_artist' => 'Album artist',
        'track' => 'Track', 'year' => 'Year', 'genre' => 'Genre'];

    private const LONGEST = 200;

    private const MOST_TRACKS = 99;

    /**
     * @param  float  $confidence  0 to 1
     * @param  array<string, string>  $fields  by their names in tags
     * @param  list<array{title: string, performer: string, isrc: string}>  $tracks  of a disc
     * @param  string  $cover  name of a picture; empty where there is none
     */
    private function __construct(public float $confidence, public array $fields, public array $tracks, public string $cover) {}

    /** Null where it is none. */
    public static function of(mixed $given): ?self
    {
        $fields = [];
        if (! is_array($given) || ! is_array($given['fields'] ?? null)) {
            return null;
        }
        foreach (array_keys(self::FIELDS) as $name) {
            $text = self::text($given['fields'][$name] ?? '');
            $fields += $text === '' ? [] : [$name => $text];
        }
        $confidence = $given['confidence'] ?? 0;
        $confidence = is_int($confidence) || is_float($confidence) ? max(0.0, min(1.0, (float) $confidence)) : 0.0;
        $cover = is_string($given['cover'] ?? null) && preg_match('/^[a-z0-9-]{1,40}$/', $given['cover']) === 1 ? $given['cover'] : '';
        $tracks = array_slice(array_filter(is_array($given['tracks'] ?? null) ? $given['tracks'] : [], is_array(...)), 0,
            self::MOST_TRACKS);

        return $fields === [] ? null : new self(is_nan($confidence) ? 0.0 : $confidence, $fields, array_values(array_map(
            fn (array $track): array => ['title' => self::text($track['title'] ?? ''), 'performer' => self::text($track['performer'] ?? ''),
                'isrc' => preg_match('/^[A-Z]{2}[A-Z0-9]{3}\d{7}$/', self::text($track['isrc'] ?? '')) === 1
                    ? self::text($track['isrc']) : ''],
            $tracks)), $cover);
    }

    public function percent(): int
    {
        return (int) round(100 * $this->confidence);
    }

    private static function text(mixed $text): string
    {
        $plain = is_string($text) ? $text : (is_int($text) ? (string) $text : '');

        return mb_substr(trim((string) preg_replace('/[\p{Cc}\p{Cf}\s]+/u', ' ', mb_scrub($plain))), 0, self::LONGEST);
    }
}
