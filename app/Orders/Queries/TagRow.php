<?php

declare(strict_types=1);

namespace App\Orders\Queries;

use App\Orders\Models\OrderLine;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\TagRoom;

/** One line of an order in the grid of tags. */
final readonly class TagRow
{
    /**
     * @param  array<string, string>  $values  as the result will have them, by field
     * @param  array<string, string>  $own  as the source has them
     * @param  ?array{string, int|string}  $cover  of the cover that the result gets, {@see ShownCover}
     * @param  ?TagRoom  $room  what the format has a place for; null where nobody has chosen one
     * @param  string  $format  what it is called
     */
    public function __construct(public int $line, public OrderLine $model, public string $name, public bool $marked, public array $values,
        public array $own, public ?array $cover = null, public ?TagRoom $room = null, public string $format = '') {}

    public function value(string $field): string
    {
        return $this->values[$field] ?? '';
    }

    public function isChanged(string $field): bool
    {
        return $this->value($field) !== ($this->own[$field] ?? '');
    }

    /** Whether the format of the result has a place for a field. */
    public function holds(string $field): bool
    {
        $known = TagField::tryFrom($field);

        return $this->room === null || ($known === null ? $this->room->free : $this->room->holds($known));
    }

    /** The name of the source without its extension. */
    public function stem(): string
    {
        return pathinfo($this->name, PATHINFO_FILENAME);
    }
}
