<?php

declare(strict_types=1);

namespace App\Lists;

/**
 * A part of a long list. It begins behind a place in the list, not after so many: finding it takes no longer at the end than at the start.
 *
 * @template T
 */
final readonly class ListPage
{
    /**
     * @param  list<T>  $items
     * @param  ?string  $before  place that the part before ends at; null where this is the first
     * @param  ?string  $after  place that the part behind begins at; null where this is the last
     */
    public function __construct(public array $items, public ?string $before, public ?string $after) {}

    public function isEmpty(): bool
    {
        return $this->items === [];
    }

    public function hasPages(): bool
    {
        return $this->before !== null || $this->after !== null;
    }

    /** Address of the part before; null where this is the first. */
    public function previous(): ?string
    {
        return $this->before === null ? null : request()->fullUrlWithQuery(['before' => $this->before, 'after' => null, 'page' => null]);
    }

    /** Address of the part behind; null where this is the last. */
    public function next(): ?string
    {
        return $this->after === null ? null : request()->fullUrlWithQuery(['after' => $this->after, 'before' => null, 'page' => null]);
    }
}
