<?php

declare(strict_types=1);

namespace App\Orders\Actions;

use App\Orders\Models\Order;
use App\Orders\Values\DraftInput;
use App\Orders\Values\SpecForm;
use App\Settings\Queries\Settings;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\DB;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\RecipeInvalid;
use Octavox\Core\Order\SoundSpec;

/** Begins an order: a draft with some sources as its lines. */
final class OpenDraft
{
    private const MOST_LINES = 20_000;

    public function __construct(private readonly ChangeOrder $change, private readonly Settings $settings) {}

    /** @param  DraftInput  $asked  sources that are not there are left out */
    public function with(DraftInput $asked): Order
    {
        $spec = SpecForm::of(new OutputSpec)->filled($asked->fields + ['format' => 'wav'])->spec;

        /** @var Order */
        return DB::transaction(function () use ($asked, $spec): Order {
            // Only one draft is known again by the address that began it.
            Order::query()->where('once', $asked->mark())->update(['once' => null]);
            $order = Order::query()->create(['spec' => $spec->toArray(), 'once' => $asked->mark()]);
            $this->asUsual($order, $asked->fields);
            $this->add($order, $asked->sources, $asked->pieces);

            return $order;
        });
    }

    /**
     * What is set for new drafts, as far as nobody asks for anything else.
     *
     * @param  array<array-key, mixed>  $fields  what was asked
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    private function asUsual(Order $order, array $fields): void
    {
        $usual = array_filter([
            'goes' => isset($fields['format']) ? '' : $this->settings->text(Settings::GOES),
            'place' => $this->settings->text(Settings::PLACE),
            'name_signs' => $this->settings->text(Settings::NAME_SIGNS), 'tag_signs' => $this->settings->text(Settings::TAG_SIGNS),
        ], fn (string $value): bool => $value !== '');
        $usual += array_filter(['care' => $this->settings->text(Settings::CARE)]);
        if ($usual !== []) {
            $this->change->with($order, $usual);
        }
    }

    /**
     * Sources that are on the order already stay where they are.
     *
     * @param  list<int>  $sources
     * @param  array<int, string>  $pieces
     */
    public function add(Order $order, array $sources, array $pieces = []): void
    {
        $known = $order->lines()->pluck('id', 'source_id')->all();
        $there = Source::query()->whereKey(array_slice($sources, 0, self::MOST_LINES))->pluck('name', 'id')->all();
        $last = $order->lines()->reorder('position', 'desc')->first();
        $position = $last->position ?? 0;
        $rows = [];
        foreach (array_unique($sources) as $source) {
            if (isset($there[$source]) && ! isset($known[$source]) && count($known) + count($rows) < self::MOST_LINES) {
                $changes = isset($pieces[$source]) ? new OutputSpec(sounds: [new SoundSpec(pieces: $pieces[$source])]) : null;
                $rows[] = ['order_id' => $order->id, 'source_id' => $source, 'position' => ++$position,
                    'spec' => $changes === null ? null : json_encode($changes->toArray())];
            }
        }
        foreach (array_chunk($rows, 200) as $part) {
            $order->lines()->insert($part);
        }
        $order->changed();
    }
}
