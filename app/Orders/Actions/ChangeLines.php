<?php

declare(strict_types=1);

namespace App\Orders\Actions;

use App\Orders\Models\Order;
use App\Orders\Models\OrderLine;
use App\Orders\Values\Scope;
use App\Orders\Values\SpecForm;
use App\Orders\Values\TagInput;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Facades\DB;
use Octavox\Core\Order\OutputSpec;

/** Changes what a draft asks of one line, of the marked ones, or of all. Only what is named is changed. */
final class ChangeLines
{
    /** Fields that are about one source and no other. */
    private const OF_ONE = ['pieces', 'tags', 'back'];

    /**
     * @param  array<array-key, mixed>  $input  fields of {@see SpecForm}, and `tags` by field, and `back`
     * @param  list<int>  $alike  numbers of the lines that are meant, where it is neither one nor a kind of them
     */
    public function with(Order $order, ?OrderLine $line, Scope $scope, array $input, array $alike = []): void
    {
        DB::transaction(function () use ($order, $line, $scope, $input, $alike): void {
            if ($scope === Scope::Alone) {
                $own = array_intersect_key($input, array_flip(self::OF_ONE));
                $this->all($order, array_diff_key($input, $own));
                if ($line !== null && $own !== []) {
                    $this->keep($order, $line, $this->changed($order, $line->refresh()->changes()->over($order->asked()), $own));
                }
            } elseif ($scope === Scope::All) {
                $this->all($order, $input);
            } else {
                $lines = match (true) {
                    $alike !== [] => $order->lines()->whereKey($alike)->get(),
                    $scope === Scope::Marked => $order->lines()->where('marked', true)->get(),
                    default => new Collection($line === null ? [] : [$line]),
                };
                foreach ($lines as $one) {
                    $this->keep($order, $one, $this->changed($order, $one->changes()->over($order->asked()), $input));
                }
            }
            $order->changed();
        });
    }

    /**
     * Takes lines off a draft; their sources stay on the list.
     *
     * @param  list<int>  $lines  their numbers
     */
    public function remove(Order $order, array $lines): void
    {
        $this->drop($order, fn (HasMany $all) => $all->whereKey($lines));
    }

    public function removeMarked(Order $order): void
    {
        $this->drop($order, fn (HasMany $all) => $all->where('marked', true));
    }

    /** @param  list<int>  $sources  numbers of those whose lines go; empty for all */
    public function removeSources(Order $order, array $sources): void
    {
        $this->drop($order, fn (HasMany $all) => $sources === [] ? $all : $all->whereIn('source_id', $sources));
    }

    /** @param  callable(HasMany<OrderLine, Order>): HasMany<OrderLine, Order>  $which */
    private function drop(Order $order, callable $which): void
    {
        DB::transaction(function () use ($order, $which): void {
            if ($which($order->lines())->delete() > 0) {
                $order->changed();
            }
        });
    }

    /**
     * All lines ask it then: what single ones had asked otherwise is forgotten.
     *
     * @param  array<array-key, mixed>  $input
     */
    private function all(Order $order, array $input): void
    {
        $before = $order->asked();
        $after = $this->changed($order, $before, $input);
        $fields = [...$after->since($before)->said(), ...$before->since($after)->said(), ...self::back($input)];
        /** @var Collection<int, OrderLine> $lines */
        $lines = $order->lines()->whereNotNull('spec')->get();
        // What is asked of a line as it was before may be said in the same words.
        $named = array_unique([...$fields, ...SpecForm::meant($input)]);
        $order->update(['spec' => $after->toArray()]);
        foreach ($lines as $line) {
            $changes = $line->changes()->without(...$named);
            $line->update(['spec' => $changes->isEmpty() ? null : $changes->toArray()]);
        }
    }

    /** @param  array<array-key, mixed>  $input */
    private function changed(Order $order, OutputSpec $spec, array $input): OutputSpec
    {
        $filled = SpecForm::of($spec)->filled($input, $order->destination === null)->spec;
        $tags = TagInput::read($input['tags'] ?? null);
        $filled = $tags === [] ? $filled : $filled->withTags($tags + ($filled->tags ?? []));
        $back = self::back($input);

        return $back === [] ? $filled : $filled->since($order->asked())->without(...$back)->over($order->asked());
    }

    private function keep(Order $order, OrderLine $line, OutputSpec $spec): void
    {
        $changes = $spec->since($order->asked());
        $line->update(['spec' => $changes->isEmpty() ? null : $changes->toArray()]);
    }

    /**
     * @param  array<array-key, mixed>  $input
     * @return list<string> fields that are set back
     */
    private static function back(array $input): array
    {
        $back = is_array($input['back'] ?? null) ? $input['back'] : [$input['back'] ?? null];

        return array_values(array_filter($back, is_string(...)));
    }
}
