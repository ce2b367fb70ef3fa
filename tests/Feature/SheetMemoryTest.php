<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Orders\Planning\PlannedResult;
use App\Orders\Planning\PlanOrder;
use App\Orders\Planning\SheetLine;
use App\Orders\Planning\SheetMemory;
use App\Presets\Queries\Presets;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\Cache;
use Tests\TestCase;

/** @return list<mixed> everything that is planned, as it is told */
function sheetOf(Order $order): array
{
    app(Presets::class)->forget();

    return array_map(fn (SheetLine $line): array => [
        array_map(fn (PlannedResult $one): array => [$one->plan?->toJson(), $one->obstacle], $line->results),
        $line->fit?->toArray(), $line->refused, $line->severity(), $line->says(), $line->bytes(),
    ], app(PlanOrder::class)->for($order->refresh()));
}

it('plans the same whether it remembers or not, whatever was changed since', function () {
    $order = $this->draft(['format' => 'wav'], 'a.wav', 'b.wav', 'c.wav');
    $same = $this->bring('d.wav', TestCase::wave(5300));
    Source::query()->whereKey($same->id)->update(['name' => 'a.wav']);
    $this->post('/ticks', ['sources' => "$same->id", 'on' => 1]);
    [$first, $second] = $order->lines()->with('source')->get()->all();
    $changes = [
        fn () => null,
        fn () => $this->patch("/orders/$order->id", ['format' => 'mp3', 'quality' => 'podcast']),
        fn () => $this->patch("/orders/$order->id/lines/$first->id", ['scope' => 'line', 'layout' => 'mono']),
        fn () => $this->patch("/orders/$order->id/lines/$first->id", ['scope' => 'line', 'tags' => ['title' => 'Gates']]),
        fn () => $this->patch("/orders/$order->id", ['name' => '{number} {title|stem}']),
        fn () => $this->delete("/orders/$order->id/lines", ['lines' => $second->id]),
        fn () => $this->patch("/orders/$order->id", ['name' => 'same']),
        fn () => $this->patch("/orders/$order->id", ['goes' => 'to:podcast-host']),
        fn () => $this->patch("/orders/$order->id", ['goes' => 'to:phone']),
        fn () => $this->patch("/orders/$order->id", ['goes' => 'to:hold-music']),
        fn () => $this->patch("/orders/$order->id", ['goes' => 'by:put-away']),
        fn () => $this->patch("/orders/$order->id/lines/$first->id", ['scope' => 'line', 'pieces' => '0-0.05']),
        fn () => $this->patch("/orders/$order->id", ['level_kind' => 'peak', 'level_value' => '-3', 'together' => '1']),
        fn () => $first->source->tracks()->update(['analysis' => null]),
        fn () => Source::query()->whereKey($same->id)->update(['name' => 'renamed.wav', 'folder' => 'day 2']),
        fn () => $this->patch("/orders/$order->id", ['title' => 'Steam day', 'name' => '{order} {stem}']),
    ];
    foreach ($changes as $number => $change) {
        $change();
        $warm = sheetOf($order);
        $again = sheetOf($order);
        Cache::flush();
        $cold = sheetOf($order);
        expect($warm)->toEqual($cold, "after change $number")->and($again)->toEqual($cold, "again after change $number");
    }
});

it('counts anew once a line is gone', function () {
    $order = $this->draft(['format' => 'wav', 'name' => '{number} {stem}'], 'a.wav', 'b.wav', 'c.wav');
    $names = fn (): array => array_map(fn (SheetLine $line): string => (string) $line->first()->plan?->name(), app(PlanOrder::class)
        ->for($order->refresh()));
    expect($names())->toBe(['1 a.wav', '2 b.wav', '3 c.wav']);
    $this->post('/ticks', ['sources' => (string) $order->lines[0]->source_id, 'on' => 0]);
    expect($names())->toBe(['1 b.wav', '2 c.wav']);
    $this->delete("/orders/$order->id/lines", ['lines' => (string) $order->lines()->first()->id]);
    expect($names())->toBe(['1 c.wav']);
});

it('places no draft of which lines were taken since it was looked at', function () {
    $order = $this->draft(['format' => 'wav'], 'a.wav', 'b.wav');
    $seen = $order->refresh()->revision;
    $this->post('/ticks', ['sources' => (string) $order->lines[0]->source_id, 'on' => 0]);
    $this->post("/orders/$order->id/place", ['revision' => $seen])->assertSessionHas('said', fn (string $said): bool => str_contains($said, 'changed elsewhere'));
    expect($order->refresh()->isDraft())->toBeTrue();
    // Nothing was taken off, so nothing was changed.
    $now = $order->revision;
    $this->post('/ticks', ['sources' => '999', 'on' => 0]);
    $this->post("/orders/$order->id/place", ['revision' => $now])->assertRedirect("/results?order=$order->id");
});

it('remembers what stays, and plans anew only what has changed', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav', 'b.wav');
    [$first, $second] = $order->lines()->with('source.tracks')->get()->all();
    sheetOf($order);
    $known = fn (): array => Cache::get(sprintf('sheet-%d-%d-%d', Octavox\Core\Plan\Plan::VERSION, Octavox\Core\Reading\Reading::VERSION,
        $order->id));
    $before = $known();
    expect(array_keys($before))->toBe([$first->id, $second->id]);
    $this->patch("/orders/$order->id/lines/$first->id", ['scope' => 'line', 'rate' => '44100']);
    $after = $known();
    expect($after[$second->id])->toBe($before[$second->id])->and($after[$first->id]->key)->not->toBe($before[$first->id]->key)
        ->and($after[$first->id]->plans[0]->sounds[0]->audio->rate)->toBe(44_100);
    // A line that is cut, or shares its gain, is not remembered: what it comes from lies outside of it.
    $this->patch("/orders/$order->id/lines/$first->id", ['scope' => 'line', 'pieces' => '0-0.05']);
    expect(SheetMemory::key($first, $first->refresh()->changes(), '', 0))->toBeNull()
        ->and(SheetMemory::key($second, $second->changes(), '', 0))->not->toBeNull()
        ->and(SheetMemory::of($order)->recall($second->id, 'another key'))->toBeNull();
});

it('is not led astray by what somebody else left in its place', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav');
    $right = sheetOf($order);
    $name = sprintf('sheet-%d-%d-%d', Octavox\Core\Plan\Plan::VERSION, Octavox\Core\Reading\Reading::VERSION, $order->id);
    foreach (['nonsense', 7, [1, 2], [$order->lines[0]->id => 'x']] as $strange) {
        Cache::put($name, $strange, 60);
        expect(sheetOf($order))->toEqual($right);
    }
});
