<?php

declare(strict_types=1);

namespace App\Values;

use App\Models\OrderLine;

/** One line of an order in the grid of tags. */
final readonly class TagRow
{
    /**
     * @param  array<string, string>  $values  as the result will have them, by field
     * @param  array<string, string>  $own  as the source has them
     */
    public function __construct(public int $line, public OrderLine $model, public string $name, public bool $marked, public array $values,
        public array $own) {}

    public function value(string $field): string
    {
        return $this->values[$field] ?? '';
    }

    public function isChanged(string $field): bool
    {
        return $this->value($field) !== ($this->own[$field] ?? '');
    }

    /** The name of the source without its extension. */
    public function stem(): string
    {
        return pathinfo($this->name, PATHINFO_FILENAME);
    }
}
