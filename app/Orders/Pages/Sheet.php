<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Lists\Remedy;
use App\Orders\Models\Order;
use App\Orders\Planning\SheetLine;

/** An order sheet: what is asked, and what would come of it. */
final readonly class Sheet
{
    /**
     * @param  list<SheetLine>  $lines  all of them, in the order of the document
     * @param  list<SheetLine>  $chosen  those that are searched for, sorted as asked
     * @param  FieldChoices  $choices  for all lines
     * @param  SheetTotals  $totals  of all lines
     * @param  SheetView  $view  which lines are shown
     * @param  ?OpenLine  $open  the only line, where there is only one: it stands open
     */
    public function __construct(public Order $order, public array $lines, public array $chosen, public FieldChoices $choices,
        public SheetTotals $totals, public SheetView $view, public SheetHead $head, public ?OpenLine $open = null) {}

    /** Whether something is still being found out, so that the sheet is to be asked for again. */
    public function isWaiting(): bool
    {
        return array_filter($this->lines, fn (SheetLine $one): bool => $one->isWaiting()) !== [];
    }

    /** @return list<SheetLine> of this part of the sheet */
    public function shown(): array
    {
        return array_slice($this->chosen, $this->view->from, $this->view->count);
    }

    /** Where the next part begins. */
    public function next(): int
    {
        return $this->view->from + $this->view->count;
    }

    /** How many come after this part. */
    public function hidden(): int
    {
        return max(0, count($this->chosen) - $this->next());
    }

    public function marked(): int
    {
        return count(array_filter($this->lines, fn (SheetLine $one): bool => $one->line->marked));
    }

    public function count(): int
    {
        return $this->totals->files;
    }

    /** @return array<string, array{string, int}> remedies that several lines have in common: fields as JSON → label and number of lines */
    public function common(): array
    {
        $common = [];
        foreach ($this->lines as $line) {
            foreach ($line->help() as $remedy) {
                $common[$remedy->written()] = [$remedy->label, ($common[$remedy->written()][1] ?? 0) + 1];
            }
        }

        return array_filter($common, fn (array $one): bool => $one[1] > 1);
    }

    /** @return list<int> numbers of the lines that a remedy helps, told by its fields as JSON */
    public function helpedBy(string $written): array
    {
        return array_values(array_map(fn (SheetLine $one): int => $one->line->id, array_filter($this->lines,
            fn (SheetLine $one): bool => array_filter($one->help(), fn (Remedy $remedy): bool => $remedy->written() === $written) !== [])));
    }
}
