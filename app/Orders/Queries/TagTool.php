<?php

declare(strict_types=1);

namespace App\Orders\Queries;

use App\Orders\Values\TagToolInput;
use Octavox\Core\Name\Signs;

/** What can be done to a column of tags at once. */
enum TagTool: string
{
    case Fill = 'fill';
    case Number = 'number';
    case FromName = 'from-name';
    case ToName = 'to-name';
    case Replace = 'replace';
    case Upper = 'upper';
    case Lower = 'lower';
    case Words = 'words';
    case Clean = 'clean';

    private const MOST_CHARACTERS = 4000;

    public function label(): string
    {
        return match ($this) {
            self::Fill => 'Give all what the first has',
            self::Number => 'Number the tracks',
            self::FromName => 'Take tags from names',
            self::ToName => 'Name results like this',
            self::Replace => 'Find and replace',
            self::Upper => 'ALL CAPITALS',
            self::Lower => 'all small letters',
            self::Words => 'Each Word With A Capital',
            self::Clean => 'Clean: spaces, emoji, control characters',
        };
    }

    /**
     * @param  list<TagRow>  $rows  in the order of the sheet
     * @return array<int, array<string, string>> new values by line and field; only of what changes
     */
    public function applied(array $rows, TagToolInput $input): array
    {
        $cells = [];
        foreach ($rows as $index => $row) {
            $new = match ($this) {
                self::Fill => [$input->field => $rows[0]->value($input->field)],
                self::Number => ['track' => ($input->from + $index).($input->isOfAll ? '/'.($input->from + count($rows) - 1) : '')],
                self::ToName => [],
                self::FromName => self::named($input->pattern, $row->stem()),
                default => $this->changed($row, $input),
            };
            $new = array_map(fn (string $value): string => mb_substr($value, 0, self::MOST_CHARACTERS), $new);
            $new = array_filter($new, fn (string $value, string $field): bool => $field !== '' && $value !== $row->value($field),
                ARRAY_FILTER_USE_BOTH);
            $cells += $new === [] ? [] : [$row->line => $new];
        }

        return $cells;
    }

    /** @return array<string, string> */
    private function changed(TagRow $row, TagToolInput $input): array
    {
        $values = $input->field === '' ? $row->values : [$input->field => $row->value($input->field)];

        return array_map(fn (string $value): string => match ($this) {
            self::Replace => $input->find === '' ? $value : str_replace($input->find, $input->with, $value),
            self::Upper => mb_strtoupper($value),
            self::Lower => mb_strtolower($value),
            self::Words => mb_convert_case($value, MB_CASE_TITLE_SIMPLE),
            default => trim((string) preg_replace('/\s+/u', ' ', Signs::Remove->applied(mb_scrub($value)))),
        }, $values);
    }

    /**
     * What a name says by a pattern: `{track} - {title}` of `03 - Opening` is track 03 and title Opening.
     *
     * @return array<string, string> by field; none where the name is not like that
     */
    private static function named(string $pattern, string $stem): array
    {
        $fields = [];
        $expression = preg_replace_callback('/\\\\\{([a-z_]+)\\\\\}/', function (array $match) use (&$fields): string {
            $fields[] = $match[1];

            return $match[1] === 'track' || $match[1] === 'disc' || $match[1] === 'year' ? '(\d+)' : '(.+?)';
        }, preg_quote(trim($pattern), '/'));
        if ($fields === [] || preg_match('/^\s*'.$expression.'\s*$/u', $stem, $found) !== 1) {
            return [];
        }
        $values = [];
        foreach ($fields as $index => $field) {
            $values[$field] = in_array($field, ['track', 'disc'], true) ? (string) (int) $found[$index + 1] : trim($found[$index + 1]);
        }
        unset($values['skip']);

        return $values;
    }
}
