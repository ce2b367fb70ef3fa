<?php

declare(strict_types=1);

namespace App\Orders\Queries;

use App\Orders\Models\Order;
use App\Orders\Models\OrderLine;
use App\Orders\Values\TagInput;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Plan\TagChanges;
use Octavox\Core\Tag\TagField;

/** The tags of all results of a draft, as a grid. */
final class TagGrid
{
    private const MOST_COLUMNS = 40;

    /** @return list<TagRow> in the order of the lines */
    public function rows(Order $order): array
    {
        $asked = $order->asked();
        $rows = [];
        foreach ($order->lines()->with('source')->get() as $line) {
            /** @var OrderLine $line */
            $facts = $line->source->facts();
            $own = $facts?->tags->values() ?? [];
            $spec = $line->changes()->over($asked);
            $values = $facts === null ? [] : TagChanges::apply($spec, $facts->tags)->values();
            $format = Outputs::named((string) $spec->container);
            $rows[] = new TagRow($line->id, $line, $line->source->heading(), $line->marked, $values, $own,
                ShownCover::of($line->source, $spec), $format?->capabilities()->tags, $format?->label() ?? '');
        }

        return $rows;
    }

    /**
     * @param  list<TagRow>  $rows
     * @return array<string, list<string>> what of the tags each format has no place for, in words; only formats that lack something
     */
    public static function short(array $rows): array
    {
        $short = [];
        foreach ($rows as $row) {
            $lost = array_filter(array_keys($row->values), fn (string $field): bool => ! $row->holds($field));
            $words = array_map(fn (string $field): string => str_replace('_', ' ', $field), array_values($lost));
            $cover = $row->cover !== null && $row->room?->cover === false ? ['a cover'] : [];
            $short[$row->format] = array_values(array_unique([...$short[$row->format] ?? [], ...$words, ...$cover]));
        }

        return array_filter($short);
    }

    /**
     * @param  list<TagRow>  $rows
     * @param  string  $more  fields that are to be columns as well, with commas between
     * @return list<string> fields: the usual ones, then those that any line has, then those that are asked for
     */
    public static function columns(array $rows, string $more = ''): array
    {
        $usual = array_map(fn (TagField $field): string => $field->value, TagInput::USUAL);
        $there = array_merge([], ...array_map(fn (TagRow $row): array => array_keys($row->values), $rows));
        $asked = array_filter(array_map(trim(...), explode(',', $more)), fn (string $one): bool => $one !== '');

        return array_slice(array_values(array_unique([...$usual, ...$there, ...$asked])), 0, self::MOST_COLUMNS);
    }
}
