<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Media\LanguageCode;
use Octavox\Core\Media\Track;
use Octavox\Core\Reading\Reading;

/** Which sound tracks of a source somebody means who says a number or a language. */
final class TrackChoice
{
    /**
     * @param  string  $said  a number, letters of ISO 639 or the English name of a language
     * @return non-empty-list<int> their numbers
     *
     * @throws CannotPlan
     */
    public static function of(Reading $source, string $said): array
    {
        $isNumber = ctype_digit($said);
        $language = $isNumber ? null : LanguageCode::said($said) ?? $said;
        $found = array_values(array_filter($source->sound(), fn (Track $track): bool => $isNumber ? $track->number === (int) $said : $track->language === $language));
        if ($found === []) {
            throw $isNumber
                ? CannotPlan::noSuchTrack($source->path, (int) $said, implode(', ', array_map(fn (Track $track): string => (string) $track->number, $source->sound())))
                : CannotPlan::noSuchLanguage($source->path, LanguageCode::name($said), implode(', ', array_map(fn (Track $track): string => $track->language === null ? 'not stated' : LanguageCode::name($track->language), $source->sound())));
        }

        return array_map(fn (Track $track): int => $track->number, $found);
    }
}
