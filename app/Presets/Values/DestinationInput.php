<?php

declare(strict_types=1);

namespace App\Presets\Values;

use Octavox\Core\Order\OutputSpec;

/** The fields of a destination's page ↔ its document; lists are typed with commas between. */
final class DestinationInput
{
    private const MOST_KINDS = 50;

    private const LISTS = ['containers', 'codecs', 'rates', 'bit_depths', 'layouts'];

    private const NUMBERS = ['most_channels', 'least_kbps', 'most_kbps'];

    private const LIMITS = ['most_bytes', 'most_seconds', 'most_name_bytes', 'most_lufs'];

    /**
     * @param  array<array-key, mixed>  $input
     * @return array<string, mixed> what the core reads, or refuses in a sentence
     */
    public static function document(array $input, OutputSpec $spec): array
    {
        $kinds = is_array($input['accepts'] ?? null) ? array_slice($input['accepts'], 0, self::MOST_KINDS) : [];
        $limits = is_array($input['limits'] ?? null) ? $input['limits'] : [];
        $picture = self::text($input['with_picture'] ?? null);

        return array_filter([
            'title' => self::text($input['title'] ?? null), 'note' => self::text($input['note'] ?? null),
            'accepts' => array_values(array_filter(array_map(fn (mixed $kind): array => is_array($kind) ? self::kind($kind) : [], $kinds),
                fn (array $kind): bool => $kind !== [])),
            'limits' => array_filter([
                ...array_map(fn (string $name): ?int => self::number($limits[$name] ?? null), array_combine(self::LIMITS, self::LIMITS)),
                'plain_name' => ($limits['plain_name'] ?? null) === '1' ? true : null,
                'plain_tags' => ($limits['plain_tags'] ?? null) === '1' ? true : null,
                'cover' => ($limits['cover'] ?? null) === '1' ? true : null,
                'broadcast' => ($limits['broadcast'] ?? null) === '1' ? true : null,
                'index_first' => ($limits['index_first'] ?? null) === '1' ? true : null,
                'tags' => self::words($limits['tags'] ?? null),
            ], fn (mixed $one): bool => $one !== null && $one !== []),
            'spec' => $spec->toArray(),
            'spec_with_picture' => $picture === '' ? null : ['version' => 1, 'container' => $picture, 'picture' => 'keep',
                ...(self::text($input['picture_sound'] ?? null) === '' ? []
                    : ['sounds' => [['codec' => self::text($input['picture_sound'])]]])],
        ], fn (mixed $one): bool => $one !== null && $one !== []);
    }

    /**
     * @param  array<array-key, mixed>  $kind
     * @return array<string, mixed>
     */
    private static function kind(array $kind): array
    {
        $own = [];
        foreach (self::LISTS as $name) {
            $own[$name] = in_array($name, ['rates', 'bit_depths'], true)
                ? array_values(array_filter(array_map(self::number(...), self::words($kind[$name] ?? null)), is_int(...)))
                : self::words($kind[$name] ?? null);
        }
        foreach (self::NUMBERS as $name) {
            $own[$name] = self::number($kind[$name] ?? null);
        }
        $own['picture'] = ['yes' => true, 'no' => false][self::text($kind['picture'] ?? null)] ?? null;
        $own['constant'] = ($kind['constant'] ?? null) === '1' ? true : null;

        return $own['containers'] === [] && $own['codecs'] === [] ? []
            : array_filter($own, fn (mixed $one): bool => $one !== null && $one !== []);
    }

    private static function text(mixed $value): string
    {
        return is_string($value) ? mb_substr(trim(mb_scrub($value)), 0, 400) : '';
    }

    private static function number(mixed $value): ?int
    {
        $text = str_replace(['−', ' ', "\u{202F}"], ['-', '', ''], self::text($value));

        return preg_match('/^-?\d{1,18}$/', $text) === 1 ? (int) $text : null;
    }

    /** @return list<string> */
    private static function words(mixed $value): array
    {
        return array_values(array_filter(array_map(trim(...), explode(',', mb_strtolower(self::text($value)))),
            fn (string $one): bool => $one !== ''));
    }
}
