<?php

declare(strict_types=1);

namespace App\Orders\Actions;

use App\Orders\Models\Order;
use App\Orders\Queries\TagGrid;
use App\Orders\Queries\TagHistory;
use App\Orders\Queries\TagRow;
use App\Orders\Queries\TagTool;
use App\Orders\Values\Scope;
use App\Orders\Values\TagInput;
use App\Orders\Values\TagToolInput;
use Illuminate\Support\Facades\DB;

/** Changes what the results of a draft say about themselves; sources stay as they are. */
final class ChangeTags
{
    public function __construct(private readonly TagGrid $grid, private readonly ChangeLines $lines,
        private readonly TagHistory $history) {}

    /**
     * @param  array<array-key, mixed>  $cells  values by line, then by field
     * @return int how many were changed
     */
    public function cells(Order $order, array $cells): int
    {
        $rows = [];
        foreach ($this->grid->rows($order) as $row) {
            $rows[$row->line] = $row;
        }
        $changed = 0;
        $before = [];
        DB::transaction(function () use ($order, $cells, $rows, &$changed, &$before): void {
            foreach ($cells as $line => $values) {
                $row = $rows[$line] ?? null;
                if ($row === null || ! is_array($values)) {
                    continue;
                }
                $tags = $row->model->changes()->tags;
                $own = $this->keep($row, TagInput::read($values));
                $changed += $own;
                if ($own > 0) {
                    $before[$row->line] = $tags;
                }
            }
            $changed > 0 && $order->changed();
        });
        if ($before !== []) {
            $this->history->add($order, $before);
        }

        return $changed;
    }

    /**
     * Takes the last change of tags back, be it of one field or of all.
     *
     * @return int of how many lines; 0 where there is nothing to take back
     */
    public function undo(Order $order): int
    {
        $before = $this->history->take($order);
        DB::transaction(function () use ($order, $before): void {
            foreach ($order->lines()->whereKey(array_keys($before))->get() as $line) {
                $changes = $line->changes()->withTags($before[$line->id]);
                $line->update(['spec' => $changes->isEmpty() ? null : $changes->toArray()]);
            }
            $before === [] || $order->changed();
        });

        return count($before);
    }

    /** Names of the results follow the tags by a pattern: those of the marked lines, or where none is marked of all. */
    public function names(Order $order, string $pattern): void
    {
        $scope = $order->markedCount() > 0 ? Scope::Marked : Scope::All;
        $this->lines->with($order, null, $scope, ['name' => $pattern]);
    }

    /** To the marked lines, or where none is marked to all. */
    public function tool(Order $order, TagTool $tool, TagToolInput $input): int
    {
        $rows = $this->grid->rows($order);
        $marked = array_values(array_filter($rows, fn (TagRow $row): bool => $row->marked));

        return $this->cells($order, $tool->applied($marked === [] ? $rows : $marked, $input));
    }

    /** @param  array<string, string|list<string>|null>  $values */
    private function keep(TagRow $row, array $values): int
    {
        $changes = $row->model->changes();
        $tags = $changes->tags ?? [];
        $changed = 0;
        foreach ($values as $field => $value) {
            $written = is_array($value) ? implode('; ', $value) : (string) $value;
            if ($written === $row->value($field)) {
                continue;
            }
            $changed++;
            unset($tags[$field]);
            if ($written !== ($row->own[$field] ?? '')) {
                $tags[$field] = $value;
            }
        }
        if ($changed > 0) {
            $changes = $changes->withTags($tags === [] ? null : $tags);
            $row->model->update(['spec' => $changes->isEmpty() ? null : $changes->toArray()]);
        }

        return $changed;
    }
}
