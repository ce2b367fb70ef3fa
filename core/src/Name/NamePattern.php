<?php

declare(strict_types=1);

namespace Octavox\Core\Name;

/**
 * How results are named: text with fields in braces. `{title|stem}` takes the first that has a value, `{track:2}` gives a number so many
 * figures, `{title|"no title"}` falls back on words. What stands in brackets is left out where a field in it has no value:
 * `[{track:2} - ]{title}`. A slash begins a folder.
 */
final readonly class NamePattern
{
    /** Every field, with what it is in words. */
    public const FIELDS = [
        'stem' => 'original name', 'title' => 'title', 'artist' => 'artist', 'album' => 'album', 'album_artist' => 'album artist',
        'track' => 'track number', 'disc' => 'disc number', 'year' => 'year', 'genre' => 'genre', 'recorded' => 'date recorded',
        'today' => 'today', 'order' => 'title of the order', 'folder' => 'source’s folder', 'tree' => 'source’s folders',
        'label' => 'channel label', 'layout' => 'layout',
        'codec' => 'codec', 'rate' => 'sample rate', 'sound_track' => 'sound track', 'number' => 'counter', 'piece' => 'piece',
    ];

    /** A tag by its name: `{tag:isrc}`. */
    private const TAG = 'tag:';

    private const MOST_FIGURES = 9;

    private const ONE = '(?:[a-z_]+|tag:[^{}|":\/]{1,60})(?::\d)?';

    private const FIELD = '\{('.self::ONE.'(?:\|(?:"[^"{}]{0,80}"|'.self::ONE.')){0,5})\}';

    public function __construct(private string $pattern = '{stem}', private Signs $signs = Signs::Keep) {}

    /**
     * Folders and the name without extension, each legal on every common system; never empty.
     *
     * @param  array<string, string>  $values  by the field's name; of tags by `tag:` and their name in small letters
     * @return non-empty-list<string>
     */
    public function path(array $values): array
    {
        $filled = (string) preg_replace_callback('/\[([^\[\]]*)\]|'.self::FIELD.'/u', function (array $match) use ($values): string {
            $isFull = true;
            if (isset($match[2])) {
                return $this->field($match[2], $values) ?? '';
            }
            $text = (string) preg_replace_callback('/'.self::FIELD.'/u', function (array $field) use ($values, &$isFull): string {
                $value = $this->field($field[1], $values);
                $isFull = $isFull && $value !== null;

                return $value ?? '';
            }, $match[1]);

            return $text === $match[1] ? $match[0] : ($isFull ? $text : '');
        }, mb_scrub($this->pattern, 'UTF-8'));
        $parts = explode('/', $filled);
        $name = LegalName::from($this->signs->applied((string) array_pop($parts)));
        $folders = array_filter(array_map(fn (string $part): string => trim($this->signs->applied($part)), $parts),
            fn (string $part): bool => trim($part, '. ') !== '');

        return [...array_values(array_map(LegalName::from(...), $folders)), $name];
    }

    /**
     * The same in one text.
     *
     * @param  array<string, string>  $values
     */
    public function fill(array $values): string
    {
        return implode('/', $this->path($values));
    }

    /** Whether a field is in it. */
    public function has(string $field): bool
    {
        return in_array($field, $this->used(), true);
    }

    /** @return list<string> what stands in braces and is no field */
    public function unknown(): array
    {
        $known = (string) preg_replace('/'.self::FIELD.'/u', '', mb_scrub($this->pattern, 'UTF-8'));
        preg_match_all('/\{[^{}]*\}?/u', $known, $braces);
        $fields = array_filter($this->used(), fn (string $field): bool => ! isset(self::FIELDS[$field])
            && ! str_starts_with($field, self::TAG));

        return array_values(array_unique([...array_map(fn (string $field): string => '{'.$field.'}', $fields), ...$braces[0]]));
    }

    /**
     * The same on a day, for an order of a title: planning asks no clock and knows no orders.
     *
     * @param  string  $today  as 2026-11-27
     */
    public static function dated(string $pattern, string $today, string $order = ''): string
    {
        $order = trim((string) preg_replace('/[\s{}\[\]"|\/]+/u', ' ', mb_scrub($order)));

        return str_replace(['{today}', '{order}'], [$today, $order], $pattern);
    }

    public function __toString(): string
    {
        return $this->pattern;
    }

    /** @return list<string> */
    private function used(): array
    {
        preg_match_all('/'.self::FIELD.'/u', mb_scrub($this->pattern, 'UTF-8'), $matches);
        $used = [];
        foreach ($matches[1] as $alternatives) {
            foreach (self::alternatives($alternatives) as [$field, , $isText]) {
                $used = $isText ? $used : [...$used, $field];
            }
        }

        return array_values(array_unique($used));
    }

    /**
     * The first that has a value; null where none has.
     *
     * @param  array<string, string>  $values
     */
    private function field(string $alternatives, array $values): ?string
    {
        foreach (self::alternatives($alternatives) as [$field, $figures, $isText]) {
            $value = $isText ? $field : self::figured($values[$field] ?? '', $figures);
            if ($value !== '') {
                // Only the folders of the source are folders.
                return $field === 'tree' && ! $isText ? $value : str_replace('/', '-', $value);
            }
        }

        return null;
    }

    /** @return list<array{string, int, bool}> field or text, figures, whether it is a text */
    private static function alternatives(string $written): array
    {
        preg_match_all('/"([^"]*)"|((?:tag:)?[^|":]+)(?::(\d))?/u', $written, $found, PREG_SET_ORDER);

        return array_map(fn (array $one): array => isset($one[2]) && $one[2] !== ''
            ? [str_starts_with($one[2], self::TAG) ? mb_strtolower($one[2]) : $one[2], (int) ($one[3] ?? 0), false]
            : [$one[1] ?? '', 0, true], $found);
    }

    /** The number that a value begins with, in so many figures; `3/12` is 3. */
    private static function figured(string $value, int $figures): string
    {
        return $figures > 0 && preg_match('/^\s*(\d+)/', $value, $number) === 1
            ? str_pad(substr($number[1], 0, self::MOST_FIGURES), $figures, '0', STR_PAD_LEFT) : $value;
    }
}
