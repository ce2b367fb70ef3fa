<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Orders\Models\OrderLine;
use App\Orders\Values\OrderState;
use App\Presets\Models\Preset;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Reading\Reader;
use Tests\TestCase;

it('begins a draft at the first tick, adds to it, and takes off again', function () {
    [$first, $second] = [$this->bring('a.wav', TestCase::wave(100)), $this->bring('b.wav', TestCase::wave(200))];
    $this->get('/sources')->assertOk()->assertDontSee('checked', false);
    $this->post('/ticks', ['sources' => "$first->id", 'on' => 1])->assertOk()->assertSee('Put on the order sheet')->assertSee('>1<', false);
    $this->post('/ticks', ['sources' => "$second->id,$first->id,999", 'on' => 1])->assertOk()->assertSee('>2<', false);
    $order = Order::query()->sole();
    expect($order->state)->toBe(OrderState::Draft)->and($order->lines->pluck('source_id')->all())->toBe([$first->id, $second->id]);
    expect(substr_count((string) $this->get('/sources')->getContent(), 'checked'))->toBe(2);
    $this->post('/ticks', ['sources' => "$first->id", 'on' => 0])->assertOk();
    expect($order->lines()->pluck('source_id')->all())->toBe([$second->id]);
    $this->post('/ticks', ['sources' => '', 'on' => 0])->assertOk()->assertSee('hidden', false);
    expect($order->lines()->count())->toBe(0);
});

it('keeps several drafts open and lets ticks go to another one', function () {
    $source = $this->bring('a.wav', TestCase::wave(100));
    $this->post('/ticks', ['sources' => "$source->id", 'on' => 1]);
    $this->post('/ticks/order')->assertRedirect();
    $this->get('/sources')->assertOk()->assertDontSee('checked', false);
    $this->post('/ticks', ['sources' => "$source->id", 'on' => 1]);
    expect(Order::query()->count())->toBe(2);
    $this->get('/order')->assertRedirect('/orders/2');
    $this->post('/ticks/order', ['order' => 1]);
    $this->get('/order')->assertRedirect('/orders/1');
    $this->get('/orders')->assertOk()->assertSeeInOrder(['Order', 'Throw away']);
    $this->delete('/orders/1')->assertRedirect('/orders');
    expect(Order::query()->pluck('id')->all())->toBe([2])->and(Source::query()->count())->toBe(1);
    $this->flushSession();
    // Drafts outlive the browser's session.
    $this->get('/order')->assertRedirect('/orders/2');
});

it('changes one line, the marked ones, or all; what differs is shown and set back', function () {
    $order = $this->draft(['format' => 'flac']);
    [$one, $two, $three] = $order->lines->all();
    $this->patch("/orders/$order->id/lines/$one->id", ['scope' => 'line', 'layout' => 'mono'])->assertOk()->assertSee('mono of all');
    expect($one->refresh()->changes()->said())->toBe(['layout'])->and($two->refresh()->spec)->toBeNull();

    $this->post("/orders/$order->id/marks", ['lines' => "$two->id,$three->id", 'on' => 1])->assertOk()->assertSee('2 marked');
    $this->patch("/orders/$order->id/lines/$two->id", ['scope' => 'marked', 'format' => 'wav', 'bits' => '24'])->assertOk();
    expect($this->shown($order))->toBe(['a.flac', 'b.wav', 'c.wav'])->and($three->refresh()->changes()->container)->toBe('wav')
        ->and($one->refresh()->changes()->container)->toBeNull();

    $this->patch("/orders/$order->id/lines/$one->id", ['scope' => 'all', 'format' => 'aiff'])->assertOk();
    expect($this->shown($order))->toBe(['a.aiff', 'b.aiff', 'c.aiff'])->and($two->refresh()->changes()->said())->toBe(['bit_depth'])
        ->and($one->refresh()->changes()->said())->toBe(['layout']);

    $this->patch("/orders/$order->id/lines/$one->id", ['scope' => 'line', 'back' => 'layout'])->assertOk()->assertDontSee('mono of all ');
    expect($one->refresh()->spec)->toBeNull();
    $this->post("/orders/$order->id/marks", ['which' => 'none'])->assertOk()->assertSee('None marked');
});

it('lets a line ask what the source has where the order asks otherwise', function () {
    $order = $this->draft(['format' => 'wav', 'rate' => '8000', 'layout' => 'mono', 'level_kind' => 'peak']);
    $line = $order->lines[0];
    $this->patch("/orders/$order->id/lines/$line->id", ['scope' => 'line', 'rate' => '', 'level_kind' => 'none'])->assertOk()
        ->assertSee('rate as recorded');
    $asked = $line->refresh()->changes()->over($order->refresh()->asked())->sounds()[0];
    expect([$asked->rate, $asked->layout, $asked->level])->toBe([null, 'mono', null]);
    $this->patch("/orders/$order->id", ['rate' => '16000'])->assertOk();
    expect($line->refresh()->changes()->over($order->refresh()->asked())->sounds()[0]->rate)->toBeNull();
});

it('finds, sorts and narrows lines, and keeps that in its address', function () {
    $order = $this->draft(['format' => 'gsm'], 'north.wav', 'south.wav', 'East.wav');
    $this->patch("/orders/$order->id/lines/{$order->lines[1]->id}", ['scope' => 'line', 'layout' => 'mono']);
    $this->patch("/orders/$order->id/lines/{$order->lines[2]->id}", ['scope' => 'line', 'format' => 'flac']);
    expect($this->shown($order))->toBe(['south.wav', 'East.flac'])->and($this->shown($order, '?find=OUTH'))->toBe(['south.wav'])
        ->and($this->shown($order, '?by=name'))->toBe(['East.flac', 'south.wav'])->and($this->shown($order, '?show=changed'))
        ->toBe(['south.wav', 'East.flac'])
        ->and($this->shown($order, '?show=stopped'))->toBe([])->and($this->shown($order, '?show=marked'))->toBe([]);
    $this->get("/orders/$order->id?show=stopped")->assertSee('carries 1 channel at most')->assertSee('Make mono');
    $this->get("/orders/$order->id?find=nothing+like+it&by[]=x&show=?")->assertOk()->assertSee('No line is like that');
});

it('carries a remedy on each refused line, and for all that need it', function () {
    $order = $this->draft(['format' => 'gsm']);
    $this->get("/orders/$order->id")->assertOk()->assertSee('Make mono')->assertSee('Make mono, for all 3')->assertSee('Make 0 files');
    $line = $order->lines[0];
    $this->patch("/orders/$order->id/lines/$line->id", ['scope' => 'line', 'layout' => 'mono'])->assertSee('Make 1 file')
        ->assertSee('for all 2');
    $this->patch("/orders/$order->id/alike", ['fields' => json_encode(['layout' => 'mono'])])->assertOk()->assertSee('Make 3 files');
    expect($order->refresh()->asked()->sounds()[0]->layout)->toBeNull();
    $this->patch("/orders/$order->id/alike", ['fields' => 'no json'])->assertOk();
});

it('goes to a destination by the least change, says why, and leaves what is accepted where it is', function () {
    $order = $this->draft([], 'right.wav', 'second.wav');
    $mp3 = $this->bring('c.mp3', (string) file_get_contents(dirname(__DIR__, 2).'/demo/voices/memo.mp3'));
    $this->post('/ticks', ['sources' => "$mp3->id", 'on' => 1]);
    $this->patch("/orders/$order->id", ['goes' => 'to:cutting-uncompressed'])->assertOk()->assertSee('accepted as it is')
        ->assertSee('sound remade')->assertSee('Its sound is MP3')->assertSee('Make 1 file')->assertSee('2 right already');
    expect($order->refresh()->destination)->toBe('cutting-uncompressed')->and($order->asked()->container)->toBeNull()
        ->and(Preset::query()->sole()->name)->toBe('cutting-uncompressed');
    $this->patch("/orders/$order->id", ['right' => 'copy'])->assertSee('Make 3 files');
    // What somebody asks besides lies over it, and is held against the rules of the destination.
    $line = $order->lines[0];
    $this->patch("/orders/$order->id/lines/$line->id", ['scope' => 'line', 'format' => 'mp3'])->assertOk()->assertSee('not accepted');
    $this->patch("/orders/$order->id/lines/$line->id", ['scope' => 'line', 'back' => 'container']);
    $this->post("/orders/$order->id/place")->assertRedirect("/results?order=$order->id");
    expect(Result::query()->pluck('state')->all())->toBe([ResultState::Done, ResultState::Done, ResultState::Done])
        ->and(Reader::read((string) Result::query()->latest('id')->first()?->path)->container)->toBe('wav');
});

it('begins with a recipe, shows what was changed since, and never changes the recipe', function () {
    $order = $this->draft();
    $this->patch("/orders/$order->id", ['goes' => 'by:episode'])->assertOk()->assertSee('128 kbit/s, constant')
        ->assertDontSee('Other than the recipe');
    expect($this->shown($order))->toBe(['a.mp3', 'b.mp3', 'c.mp3']);
    $this->patch("/orders/$order->id", ['quality' => 'kbps:96'])->assertOk()->assertSee('Other than the recipe')
        ->assertSee('96 kbit/s, constant');
    expect($order->refresh()->begunWith()?->sounds()[0]->rateControl?->kbps)->toBe(128)
        ->and($order->asked()->sounds()[0]->rateControl?->kbps)->toBe(96);
    $this->patch("/orders/$order->id", ['back' => 'rate_control'])->assertOk()->assertDontSee('Other than the recipe');
    expect($order->refresh()->asked()->sounds()[0]->rateControl?->kbps)->toBe(128);
    $this->patch("/orders/$order->id", ['goes' => ''])->assertOk();
    expect($order->refresh()->recipe)->toBeNull()->and($order->asked()->container)->toBe('mp3');
    $this->patch("/orders/$order->id", ['goes' => 'by:nowhere'])->assertOk();
    $this->patch("/orders/$order->id", ['goes' => ['to:x']])->assertOk();
});

it('puts results into the folders that the name says, and tells of a field that there is not', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav');
    $line = $order->lines[0];
    $this->patch("/orders/$order->id",
        ['title' => 'Lift / day {one}', 'name' => '{today} {order}/{artist|"Nobody"}/[{track:2} - ]{title|stem}'])->assertOk();
    $this->patch("/orders/$order->id/lines/$line->id",
        ['tags' => ['title' => 'The lift: opens', 'track' => '3/9', 'artist' => 'Brass; Choir', 'genre' => '']]);
    $day = now()->format('Y-m-d');
    expect($this->shown($order))->toBe(["$day Lift day one/Brass; Choir/03 - The lift- opens.flac"]);
    $this->post("/orders/$order->id/place")->assertRedirect();
    $result = Result::query()->sole();
    expect($result->path)
        ->toBe(sprintf('%s/results/%04d/%s', $this->home, $order->id, "$day Lift day one/Brass; Choir/03 - The lift- opens.flac"))
        ->and(Reader::read((string) $result->path)->tags->toArray())
        ->toMatchArray(['title' => 'The lift: opens', 'artist' => ['Brass', 'Choir'], 'track' => '3/9']);

    $other = $this->draft(['format' => 'flac', 'name' => '{colour}'], 'b.wav');
    $this->get("/orders/$other->id")->assertOk()->assertSee('There is no field {colour}')->assertSee('Name it after its source')
        ->assertSee('Make 0 files');
});

it('puts results beside their sources or on a shelf, where its owner lets it, and never in place of a source', function () {
    file_put_contents($this->home.'/shelf/one.wav', TestCase::wave(500));
    mkdir($this->home.'/shelf/Out');
    $this->post('/shelves/Videos', ['paths' => ['one.wav']]);
    $shelved = Source::query()->sole();
    $uploaded = $this->bring('two.wav', TestCase::wave(600));
    $this->post('/orders', ['sources' => "$shelved->id,$uploaded->id", 'format' => 'flac']);
    $this->get('/orders/1')->assertOk()->assertDontSee('beside each source');
    config(['octavox.writable' => 'Videos']);
    $this->get('/orders/1')->assertOk()->assertSee('beside each source')->assertSee('Videos / Out');
    $this->patch('/orders/1', ['place' => 'beside'])->assertOk()->assertSee('came by upload, so its result lies among the results');
    $this->post('/orders/1/place');
    expect(Result::query()->orderBy('id')->pluck('path')->all())->toBe([$this->home.'/shelf/one.flac', $this
        ->home.'/results/0001/two.flac']);

    $this->post('/orders', ['sources' => "$shelved->id", 'format' => 'wav', 'bits' => '24', 'existing' => 'replace']);
    $this->patch('/orders/2', ['place' => 'beside']);
    $before = hash_file('xxh128', $shelved->path);
    $this->get('/orders/2')->assertSee('is a source, which nothing ever takes the place of')->assertDontSee('Replace it');
    $this->post('/orders/2/place')->assertSessionHas('said', fn (string $said): bool => str_contains($said, 'is a source'));
    expect(Order::query()->findOrFail(2)->isDraft())->toBeTrue()->and(hash_file('xxh128', $shelved->path))->toBe($before);
    $this->post('/orders', ['sources' => "$shelved->id", 'format' => 'flac']);
    $this->patch('/orders/3', ['place' => 'shelf:Videos/Out']);
    $this->post('/orders/3/place');
    expect(is_file($this->home.'/shelf/Out/one.flac'))->toBeTrue();
    $this->post('/orders', ['sources' => "$shelved->id", 'format' => 'flac']);
    foreach (['shelf:Videos/../..', 'shelf:Gone/x', 'shelf:Videos/none'] as $place) {
        $this->patch('/orders/4', ['place' => $place])->assertOk()->assertSee('Make 0 files');
    }
    config(['octavox.writable' => '']);
    $this->patch('/orders/4', ['place' => 'shelf:Videos'])->assertOk()->assertSee('not open for writing');
    $this->patch('/orders/4', ['place' => '/etc'])->assertOk()->assertSee('Make 1 file');
    expect($this->shown(Order::query()->findOrFail(4)))->toBe(['one.flac']);
});

it('places a draft once, and not where somebody changed it meanwhile', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav');
    Queue::fake();
    $seen = $order->refresh()->revision;
    $this->patch("/orders/$order->id", ['layout' => 'mono']);
    $this->post("/orders/$order->id/place", ['revision' => $seen])->assertRedirect("/orders/$order->id")
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, 'changed elsewhere'));
    expect(Result::query()->count())->toBe(0);
    $this->post("/orders/$order->id/place", ['revision' => $seen + 1])->assertRedirect("/results?order=$order->id");
    $this->post("/orders/$order->id/place", ['revision' => $seen + 1])->assertRedirect("/results?order=$order->id");
    expect(Result::query()->count())->toBe(1);
    $this->get("/orders/$order->id")->assertRedirect("/results?order=$order->id");
    $this->patch("/orders/$order->id", ['layout' => ''])->assertStatus(409);
    $this->delete("/orders/$order->id")->assertStatus(409);
    $this->patch("/orders/$order->id/lines/{$order->lines[0]->id}", ['layout' => ''])->assertStatus(409);
});

it('keeps what two people change at once, each their own field', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav');
    $this->patch("/orders/$order->id", ['layout' => 'mono']);
    $this->patch("/orders/$order->id", ['bits' => '24']);
    $this->patch("/orders/$order->id", ['name' => '{stem} x']);
    $sound = $order->refresh()->asked()->sounds()[0];
    expect([$sound->layout, $sound->bitDepth, $order->asked()->name])->toBe(['mono', 24, '{stem} x']);
});

it('asks the same again of the same sources, or of others', function () {
    $order = $this->draft(['format' => 'flac', 'layout' => 'mono'], 'a.wav', 'b.wav');
    $this->patch("/orders/$order->id/lines/{$order->lines[1]->id}", ['scope' => 'line', 'layout' => 'swap']);
    $this->post("/orders/$order->id/place");
    $this->post("/orders/$order->id/again")->assertRedirect('/orders/2');
    $again = Order::query()->findOrFail(2);
    expect($again->asked())->toEqual($order->refresh()->asked())
        ->and($again->lines->map(fn (OrderLine $line): OutputSpec => $line->changes())->all())
        ->toEqual($order->lines()->get()->map(fn (OrderLine $line): OutputSpec => $line->changes())->all());
    $this->post("/orders/$order->id/again", ['empty' => 1])->assertRedirect('/orders/3');
    expect(Order::query()->findOrFail(3)->lines()->count())->toBe(0)->and(Order::query()->findOrFail(3)->asked()->container)->toBe('flac');
    // An order of a former release has results and no lines.
    $order->lines()->delete();
    $this->post("/orders/$order->id/again")->assertRedirect('/orders/4');
    expect(Order::query()->findOrFail(4)->lines()->count())->toBe(2);
});

it('opens a line with its way, its tags and every field', function () {
    $order = $this->draft(['format' => 'mp3', 'layout' => 'mono']);
    $line = $order->lines[0];
    $this->get("/orders/$order->id/lines/$line->id")->assertOk()->assertSee('encode MP3')->assertSee('the marked ones')
        ->assertSee('name="tags[title]"', false)
        ->assertDontSee('name="quality"', false);
    $this->get("/orders/$order->id/lines/$line->id?all=1")->assertOk()->assertSee('name="quality"', false);
    $other = $this->draft([], 'x.wav');
    $this->get("/orders/$other->id/lines/$line->id")->assertNotFound();
    $this->get("/orders/$order->id/lines/9999")->assertNotFound();
});

it('survives a line whose source left, and a spec that nobody understands', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav', 'b.wav');
    $this->delete('/sources/'.$order->lines[0]->source_id)->assertRedirect();
    expect($this->shown($order))->toBe(['b.flac']);
    OrderLine::query()->update(['spec' => '{"version":99}']);
    Order::query()->update(['base' => '{"version":1,"surprise":1}']);
    expect($this->shown($order))->toBe(['b.flac']);
});

it('numbers names that would clash, says so, and offers what helps', function () {
    $order = $this->draft(['format' => 'flac', 'name' => 'take'], 'a.wav', 'b.wav', 'take 2.wav');
    expect($this->shown($order))->toBe(['take.flac', 'take 2.flac', 'take 3.flac']);
    $this->get("/orders/$order->id")->assertSee('Another line makes a file of this name')
        ->assertSee('Name them with the counter, for all 2');
    $this->patch("/orders/$order->id/alike", ['fields' => json_encode(['name' => '{number:3} {stem}'])])->assertOk();
    expect($this->shown($order))->toBe(['take.flac', '002 b.flac', '003 take 2.flac']);
    // A name that only ends in a number is no clash.
    $this->patch("/orders/$order->id", ['name' => '{stem}']);
    $this->get("/orders/$order->id")->assertDontSee('Another line makes');
});

it('says of files that are there already what will become of them, line by line', function () {
    config(['octavox.writable' => 'Videos']);
    foreach (['one', 'two'] as $index => $name) {
        file_put_contents($this->home."/shelf/$name.wav", TestCase::wave(500 + $index));
    }
    file_put_contents($this->home.'/shelf/one.flac', 'there before');
    $this->post('/shelves/Videos', ['paths' => ['one.wav', 'two.wav']]);
    $this->post('/orders', ['sources' => Source::query()->pluck('id')->implode(','), 'format' => 'flac']);
    $this->patch('/orders/1', ['place' => 'beside'])->assertOk()
        ->assertSee('There is a file called “one.flac” in that place already: this one is numbered')
        ->assertSee('Leave it out')->assertDontSee('“two.flac” in that place');
    $line = OrderLine::query()->firstOrFail();
    $this->patch("/orders/1/lines/$line->id", ['scope' => 'line', 'existing' => 'skip'])->assertSee('it stays, and nothing is made');
    $this->post('/orders/1/place');
    expect(Result::query()->orderBy('id')->pluck('state')->all())->toBe([ResultState::Skipped, ResultState::Done])
        ->and(file_get_contents($this->home.'/shelf/one.flac'))->toBe('there before');
    // The folder is taken in again: its own results are no sources.
    $this->get('/shelves/Videos')->assertOk()->assertSee('made here');
    $this->post('/shelves/Videos', ['paths' => ['one.wav', 'two.wav', 'two.flac']])
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, '2 files taken')
            && str_contains($said, '1 were made here before'));
    expect(Source::query()->count())->toBe(2);
    $this->post('/shelves/Videos', ['paths' => ['two.flac']]);
    expect(Source::query()->count())->toBe(3);
});

it('asks first what becomes of files that are there already, and makes nothing before somebody has said it', function () {
    config(['octavox.writable' => 'Videos']);
    foreach (['one', 'two', 'three'] as $index => $name) {
        file_put_contents($this->home."/shelf/$name.wav", TestCase::wave(500 + $index));
    }
    file_put_contents($this->home.'/shelf/one.flac', 'there before');
    $this->post('/shelves/Videos', ['paths' => ['one.wav', 'two.wav', 'three.wav']]);
    $this->post('/orders', ['sources' => Source::query()->pluck('id')->implode(','), 'format' => 'flac', 'existing' => 'ask']);
    $this->patch('/orders/1', ['place' => 'beside'])->assertOk()->assertSee('say what becomes of it')->assertSee('Replace it')
        ->assertSee('Leave it out')->assertSee('Number it');
    $this->post('/orders/1/place')->assertSessionHas('said', fn (string $said): bool => str_starts_with($said,
        '1 of the files exist already'));
    expect(Result::query()->count())->toBe(0);
    $this->patch('/orders/1/lines/1', ['scope' => 'line', 'existing' => 'number'])->assertOk()->assertDontSee('say what becomes of it');
    // One that appears between sheet and making is left alone as well.
    Queue::fake();
    $this->post('/orders/1/place')->assertRedirect('/results?order=1');
    file_put_contents($this->home.'/shelf/two.flac', 'just now');
    Result::query()->orderBy('id')->each(fn (Result $result) => app()->call([new MakeResult, 'handle']));
    expect(Result::query()->orderBy('id')->pluck('state')->all())->toBe([ResultState::Done, ResultState::Failed, ResultState::Done])
        ->and((string) Result::query()->orderBy('id')->skip(1)->value('error_says'))->toContain('nobody has said what becomes of it')
        ->and(file_get_contents($this->home.'/shelf/two.flac'))->toBe('just now')
        ->and(file_get_contents($this->home.'/shelf/one.flac'))->toBe('there before')
        ->and(Reader::read($this->home.'/shelf/one 2.flac')->container)->toBe('flac');
});

it('neither writes nor gives away anything outside of a shelf, whatever links lead out of it', function () {
    config(['octavox.writable' => 'Videos']);
    mkdir($this->home.'/elsewhere');
    file_put_contents($this->home.'/elsewhere/secret.flac', 'not yours');
    symlink($this->home.'/elsewhere', $this->home.'/shelf/Out');
    $source = $this->bring('a.wav', TestCase::wave(500));
    foreach (['Out/{stem}', 'Out/deep/{stem}'] as $number => $name) {
        $this->post('/orders', ['sources' => "$source->id", 'format' => 'flac', 'name' => $name]);
        $this->patch('/orders/'.($number + 1), ['place' => 'shelf:Videos'])->assertOk();
        $this->post('/orders/'.($number + 1).'/place');
        $failed = Result::query()->latest('id')->firstOrFail();
        expect($failed->state)->toBe(ResultState::Failed)->and($failed->error_says)->toContain('leads out of the shelf');
    }
    expect(glob($this->home.'/elsewhere/*'))->toBe([$this->home.'/elsewhere/secret.flac']);
    $this->patch('/orders/2', ['place' => 'shelf:Videos/Out'])->assertStatus(409);

    $this->post('/orders', ['sources' => "$source->id", 'format' => 'flac', 'name' => 'here/{stem}']);
    $this->patch('/orders/3', ['place' => 'shelf:Videos']);
    $this->post('/orders/3/place');
    $made = Result::query()->latest('id')->firstOrFail();
    expect($made->state)->toBe(ResultState::Done);
    $this->get("/results/$made->id/file")->assertOk()->assertDownload('a.flac');
    unlink((string) $made->path);
    symlink($this->home.'/elsewhere/secret.flac', (string) $made->path);
    $this->get("/results/$made->id/file")->assertNotFound();
    $this->get("/results/$made->id/media")->assertNotFound();
    expect($this->post('/results/many', ['do' => 'download', 'results' => "$made->id"])->streamedContent())->not->toContain('not yours');
});
