<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Orders\Models\Order;
use App\Orders\Planning\SheetLine;
use App\Orders\Queries\ShownCover;
use App\Orders\Values\TagInput;
use Octavox\Core\Failure;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\TagField;

/** A line of a sheet that is opened: its way in full, and all that can be set of it. */
final readonly class OpenLine
{
    /**
     * @param  int  $lines  of the whole order
     * @param  int  $marked  of them
     */
    public function __construct(public Order $order, public SheetLine $line, public FieldChoices $choices, public int $lines,
        public int $marked, public bool $hasFields) {}

    public function layout(): ?Layout
    {
        return $this->line->first()->layout;
    }

    /** @return array<string, string> each layout that the source can have, written channel by channel */
    public function words(): array
    {
        $words = [];
        $layout = $this->layout();
        if ($layout === null) {
            return [];
        }
        foreach ([...array_keys(ChannelMap::WORDS), $this->choices->form->layout()] as $word) {
            try {
                $words[(string) $word] = ChannelMap::parse((string) $word, $layout)->text();
            } catch (Failure) {
                continue;
            }
        }

        return $words;
    }

    /** @return ?array{string, int|string} of the cover that the result gets, {@see ShownCover} */
    public function cover(): ?array
    {
        return ShownCover::of($this->line->source, $this->line->line->changes()->over($this->order->asked()));
    }

    /** @return array<string, string> values as the result will have them, by field: the usual ones, then whatever else there is */
    public function tags(): array
    {
        $own = $this->line->first()->plan?->tags->values() ?? $this->line->source->facts()?->tags->values() ?? [];
        $usual = array_fill_keys(array_map(fn (TagField $field): string => $field->value, TagInput::USUAL), '');

        return array_merge($usual, $own);
    }
}
