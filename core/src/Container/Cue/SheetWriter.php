<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Cue;

use Octavox\Core\Tag\Tags;

/** Writes the sheet by which other programs write an audio disc: a file for each track. */
final class SheetWriter
{
    /**
     * @param  non-empty-list<array{string, Tags}>  $tracks  name of each file, which lies beside the sheet, and what it says of itself
     */
    public static function text(array $tracks): string
    {
        $common = self::common(array_map(fn (array $track): array => $track[1]->values(), $tracks));
        $lines = [];
        foreach (['genre' => 'REM GENRE', 'year' => 'REM DATE', 'album_artist' => 'PERFORMER', 'album' => 'TITLE'] as $field => $command) {
            $value = $common[$field] ?? ($field === 'album_artist' ? $common['artist'] ?? '' : '');
            $lines[] = $value === '' ? '' : $command.' '.self::quoted($value);
        }
        foreach ($tracks as $index => [$name, $tags]) {
            $values = $tags->values();
            $lines[] = 'FILE '.self::quoted($name).' WAVE';
            $lines[] = sprintf('  TRACK %02d AUDIO', $index + 1);
            $lines[] = ($values['title'] ?? '') === '' ? '' : '    TITLE '.self::quoted($values['title']);
            $lines[] = ($values['artist'] ?? '') === '' ? '' : '    PERFORMER '.self::quoted($values['artist']);
            $lines[] = ($values['composer'] ?? '') === '' ? '' : '    SONGWRITER '.self::quoted($values['composer']);
            $isrc = strtoupper(str_replace('-', '', $values['isrc'] ?? ''));
            $lines[] = preg_match('/^[A-Z]{2}[A-Z0-9]{3}\d{7}$/', $isrc) === 1 ? '    ISRC '.$isrc : '';
            $lines[] = '    INDEX 01 00:00:00';
        }

        return implode('',
            array_map(fn (string $line): string => $line."\r\n", array_filter($lines, fn (string $line): bool => $line !== '')));
    }

    /**
     * @param  non-empty-list<array<string, string>>  $all
     * @return array<string, string> what all say alike
     */
    private static function common(array $all): array
    {
        $common = $all[0];
        foreach ($all as $one) {
            $common = array_filter($common, fn (string $value, string $field): bool => ($one[$field] ?? null) === $value,
                ARRAY_FILTER_USE_BOTH);
        }

        return $common;
    }

    /** Quotation marks end a text, and lines are separated by what breaks them. */
    private static function quoted(string $text): string
    {
        return '"'.str_replace('"', "'", (string) preg_replace('/\s+/u', ' ', $text)).'"';
    }
}
