<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Orders\Models\OrderLine;
use App\Orders\Queries\TagGrid;
use App\Orders\Queries\TagRow;
use App\Orders\Queries\TagTool;
use App\Orders\Values\TagToolInput;
use App\Results\Models\Result;
use App\Sources\Models\Source;
use Octavox\Core\Reading\Reader;

/** @return list<string> of a column, line by line */
function column(Order $order, string $field): array
{
    return array_map(fn (TagRow $row): string => $row->value($field), app(TagGrid::class)->rows($order->refresh()));
}

it('shows the tags of all lines, keeps what is typed, and writes it into the results', function () {
    $order = $this->draft(['format' => 'flac'], '01 - Opening.wav', '02 - The lift.wav');
    [$one, $two] = $order->lines->all();
    $this->get("/orders/$order->id/tags")->assertOk()->assertSee('title of 01 - Opening.wav')->assertDontSee('is-changed');
    $this->post("/orders/$order->id/tags",
        ['cells' => [$one->id => ['title' => 'Opening', 'artist' => 'Brass; Choir', 'isrc' => 'XW1', 'odd field' => 'x'],
            9999 => ['title' => 'nobody'], 'x' => 'y']])->assertRedirect("/orders/$order->id/tags")
        ->assertSessionHas('said', fn (string $said): bool => str_starts_with($said, '4 fields were changed'));
    $this->get("/orders/$order->id/tags?more=mood,key")->assertOk()->assertSee('is-changed')->assertSee('Mood')->assertSee('ODD FIELD');
    expect($two->refresh()->spec)->toBeNull()->and($one->refresh()->changes()->tags)
        ->toBe(['title' => 'Opening', 'artist' => ['Brass', 'Choir'], 'isrc' => 'XW1', 'ODD FIELD' => 'x']);
    $this->post("/orders/$order->id/place");
    expect(Reader::read((string) Result::query()->orderBy('id')->firstOrFail()->path)->tags->toArray())
        ->toMatchArray(['title' => 'Opening', 'artist' => ['Brass', 'Choir'], 'isrc' => 'XW1', 'ODD FIELD' => 'x']);
    $this->get("/orders/$order->id/tags")->assertRedirect("/results?order=$order->id");
    $this->post("/orders/$order->id/tags", ['cells' => []])->assertStatus(409);
});

it('keeps tags as they are typed, and takes changes back one by one', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav', 'b.wav');
    [$one, $two] = $order->lines->all();
    $type = fn (array $cells) => $this->patch("/orders/$order->id/tags", ['cells' => $cells])->assertNoContent();
    $type([$one->id => ['title' => 'Opening']]);
    $type([$one->id => ['title' => 'Opening']]);
    $this->post("/orders/$order->id/tags", ['tool' => 'upper', 'field' => 'title']);
    $type([$one->id => ['artist' => 'Brass'], $two->id => ['title' => 'The lift']]);
    expect(column($order, 'title'))->toBe(['OPENING', 'The lift'])->and(column($order, 'artist'))->toBe(['Brass', '']);
    $undo = fn (string $says) => $this->post("/orders/$order->id/tags/undo", ['more' => 'mood'])
        ->assertRedirect("/orders/$order->id/tags?more=mood")
        ->assertSessionHas('said', $says);
    $undo('The last change was taken back; it was of 2 lines.');
    expect(column($order, 'title'))->toBe(['OPENING', ''])->and(column($order, 'artist'))->toBe(['', '']);
    $undo('The last change was taken back; it was of one line.');
    expect(column($order, 'title'))->toBe(['Opening', '']);
    $undo('The last change was taken back; it was of one line.');
    expect($one->refresh()->spec)->toBeNull();
    $undo('There is nothing to take back.');
    $this->post("/orders/$order->id/place");
    $this->patch("/orders/$order->id/tags", ['cells' => []])->assertStatus(409);
    $this->post("/orders/$order->id/tags/undo")->assertStatus(409);
});

it('takes a change away where it is typed back to what the source has', function () {
    $first = $this->draft(['format' => 'flac'], 'a.wav');
    $this->patch("/orders/$first->id/lines/{$first->lines[0]->id}", ['tags' => ['title' => 'Own', 'artist' => 'Band']]);
    $this->post("/orders/$first->id/place");
    $tagged = $this->bring('b.flac', (string) file_get_contents((string) Result::query()->sole()->path));
    $this->post('/orders', ['sources' => "$tagged->id", 'format' => 'wav']);
    $order = Order::query()->latest('id')->firstOrFail();
    $line = $order->lines[0];
    $this->post("/orders/$order->id/tags", ['cells' => [$line->id => ['title' => 'Other', 'artist' => '']]]);
    expect($line->refresh()->changes()->tags)->toBe(['title' => 'Other', 'artist' => null])->and(column($order, 'artist'))->toBe(['']);
    $this->post("/orders/$order->id/tags", ['cells' => [$line->id => ['title' => 'Own', 'artist' => 'Band']]]);
    expect($line->refresh()->spec)->toBeNull()->and(column($order, 'title'))->toBe(['Own']);
});

it('numbers, fills, takes from names, replaces and cleans, for the marked lines or for all', function () {
    $order = $this->draft(['format' => 'flac'], '01 - Opening.wav', '02 - The 🚤 lift.wav', 'notes.wav');
    $tool = fn (string $name, array $more = []) => $this->post("/orders/$order->id/tags", ['tool' => $name] + $more)->assertRedirect();
    $tool('from-name', ['pattern' => '{track} - {title}']);
    expect(column($order, 'title'))->toBe(['Opening', 'The 🚤 lift', ''])->and(column($order, 'track'))->toBe(['1', '2', '']);
    $tool('clean');
    expect(column($order, 'title'))->toBe(['Opening', 'The lift', '']);
    $tool('replace', ['field' => 'title', 'search' => 'lift', 'with' => 'boat lift']);
    $tool('words', ['field' => 'title']);
    expect(column($order, 'title'))->toBe(['Opening', 'The Boat Lift', '']);
    $tool('number', ['from' => '7', 'of_all' => '1']);
    expect(column($order, 'track'))->toBe(['7/9', '8/9', '9/9']);
    $this->post("/orders/$order->id/marks", ['lines' => (string) $order->lines[1]->id, 'on' => 1]);
    $tool('upper', ['field' => 'title']);
    expect(column($order, 'title'))->toBe(['Opening', 'THE BOAT LIFT', '']);
    $this->post("/orders/$order->id/marks", ['which' => 'all']);
    $this->post("/orders/$order->id/tags",
        ['cells' => [$order->lines[0]->id => ['album' => 'Reopening']], 'tool' => 'fill', 'field' => 'album']);
    expect(column($order, 'album'))->toBe(['Reopening', 'Reopening', 'Reopening']);
    $tool('burn');
    $tool('fill', ['field' => 'duration']);
});

it('takes of names what a pattern says, and nothing where a name is not like that', function (string $pattern, string $name, array $found) {
    $row = new TagRow(1, new OrderLine, $name, false, [], []);
    expect(TagTool::FromName->applied([$row], TagToolInput::of(['pattern' => $pattern])))->toBe($found === [] ? [] : [1 => $found]);
})->with([
    ['{track} - {title}', '03 - Opening.wav', ['track' => '3', 'title' => 'Opening']], ['{track} - {title}', 'Opening.wav', []],
    ['{artist} - {album} - {track} {title}', 'Band - Live - 12 The End.mp3',
        ['artist' => 'Band', 'album' => 'Live', 'track' => '12', 'title' => 'The End']],
    ['{title} ({year})', 'Choir evening (1994).flac', ['title' => 'Choir evening', 'year' => '1994']],
    ['{skip}_{title}', 'x_y.wav', ['title' => 'y']],
    ['no field', 'no field.wav', []], ['', 'x.wav', []], ['{title}.*', 'x.*.wav', ['title' => 'x']],
    ['(a+)+{title}', str_repeat('a', 500).'.wav', []],
]);

it('shows hundreds of lines by pages, soon and with few queries', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav');
    $source = $order->lines[0]->source_id;
    $rows = array_map(fn (int $number): array => ['name' => "clip $number.wav", 'path' => "/x/$number", 'origin' => 'shelf',
        'state' => 'ready',
        'created_at' => now(), 'updated_at' => now(), 'reading' => Source::query()->findOrFail($source)
            ->getRawOriginal('reading')], range(1, 250));
    Source::query()->insert($rows);
    $this->post('/ticks', ['sources' => Source::query()->pluck('id')->implode(','), 'on' => 1]);
    $page = (string) $this->get("/orders/$order->id/tags?page=3")->assertOk()->getContent();
    expect(substr_count($page, '<th scope="row">'))->toBe(51);
    $this->get("/orders/$order->id/tags?page=99")->assertOk();
});
