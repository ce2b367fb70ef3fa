<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Media\LanguageCode;
use Octavox\Core\Media\Track;

/**
 * Which sound tracks are meant: numbers or languages separated by commas, `all` for each of them, `2+3+4` for several whose channels become
 * one
 * sound, `joined` for all of them as one.
 */
final readonly class TrackSelection
{
    /** @param  list<string>  $parts */
    private function __construct(private array $parts) {}

    /** Null or empty leaves the choice: the first of a sound file's, all of a video's. */
    public static function parse(?string $text): self
    {
        return new self(array_values(array_filter(array_map(trim(...), explode(',', (string) $text)),
            fn (string $part): bool => $part !== '')));
    }

    public function isEmpty(): bool
    {
        return $this->parts === [];
    }

    /**
     * @param  list<Track>  $sound  the sound tracks of a source
     * @return list<non-empty-list<int>> numbers of the tracks of each sound; what is not there is an empty answer of {@see self::missing()}
     */
    public function select(array $sound): array
    {
        $numbers = array_map(fn (Track $track): int => $track->number, $sound);
        $found = [];
        foreach ($this->parts as $part) {
            array_push($found, ...match (true) {
                $part === 'all' => array_map(fn (int $number): array => [$number], $numbers),
                $part === 'joined' => $numbers === [] ? [] : [$numbers],
                preg_match('/^\d+(\+\d+)+$/', $part) === 1 => [array_map(intval(...), explode('+', $part))],
                ctype_digit($part) => [[(int) $part]],
                default => array_map(fn (Track $track): array => [$track->number], self::inLanguage($sound, $part)),
            });
        }

        return $found;
    }

    /**
     * The part that names nothing of a source; null where every part names something.
     *
     * @param  list<Track>  $sound
     */
    public function missing(array $sound): ?string
    {
        $numbers = array_map(fn (Track $track): int => $track->number, $sound);
        foreach ($this->parts as $part) {
            $wanted = preg_match('/^\d+(\+\d+)*$/', $part) === 1 ? array_map(intval(...), explode('+', $part)) : null;
            if ($wanted !== null) {
                $absent = array_values(array_diff($wanted, $numbers));
                if ($absent !== []) {
                    return (string) $absent[0];
                }
            } elseif (! in_array($part, ['all', 'joined'], true) && self::inLanguage($sound, $part) === []) {
                return $part;
            }
        }

        return null;
    }

    /**
     * @param  list<Track>  $sound
     * @return list<Track>
     */
    private static function inLanguage(array $sound, string $said): array
    {
        $language = LanguageCode::said($said) ?? $said;

        return array_values(array_filter($sound, fn (Track $track): bool => $track->language === $language));
    }
}
