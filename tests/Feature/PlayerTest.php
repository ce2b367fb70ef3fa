<?php

declare(strict_types=1);

use App\Files\Shelves;
use App\Orders\Models\Order;
use App\Presets\Models\Preset;
use App\Presets\Values\PresetKind;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\Queue;

/** Plugs a player in that takes MP3. */
function pocket(mixed $test, int $capacity = 5_000_000, string $name = 'Pocket'): string
{
    $root = $test->home.'/players/'.$name;
    is_dir($root) || mkdir($root, 0777, true);
    file_put_contents($root.'/player.json', json_encode(['version' => 1, 'body' => ['capacity_bytes' => $capacity, 'folder' => 'MUSIC',
        'names' => '{artist|"Unknown"}/{title|stem}', 'playlists' => 'LISTS'], 'destination' => ['title' => 'Pocket of the lift', 'note' => 'MP3 in stereo.',
            'accepts' => [['containers' => ['mp3'], 'codecs' => ['mp3'], 'picture' => false, 'most_channels' => 2]],
            'spec' => ['version' => 1, 'container' => 'mp3', 'sounds' => [['rate_control' => ['mode' => 'exact', 'kbps' => 128]]]]]]));

    return $root;
}

/** An MP3 that the player takes as it is. */
function acceptable(mixed $test): Source
{
    $source = $test->bring('tune.wav', $test->wave(48_000));
    $test->order(['sources' => (string) $source->id, 'format' => 'mp3', 'quality' => 'kbps:192']);

    return $test->bring('Gate march.mp3', (string) file_get_contents(Result::query()->latest('id')->firstOrFail()->path));
}

it('sends sources to a player: what it takes is copied, what it refuses is remade, and a playlist names all', function () {
    $this->get('/outside/players')->assertOk()->assertSee('None is plugged in.');
    $root = pocket($this);
    $this->get('/outside')->assertSee('Pocket of the lift');
    $ready = acceptable($this);
    $wave = $this->bring('Lift waltz.wav', $this->wave(50_000));
    $this->get('/outside/players')->assertOk()->assertSee('5.0 MB')->assertSee('it can be pulled out')->assertSee('Nothing is on it yet.');
    $this->post('/outside/players', ['player' => 'Pocket', 'sources' => "$ready->id,$wave->id"])->assertRedirect();
    $order = Order::query()->latest('id')->firstOrFail();
    // Nothing is on it before the order is placed.
    expect(glob($root.'/MUSIC/*'))->toBe([])->and($order->heading())->toBe('To Pocket of the lift');
    $this->get("/orders/$order->id")->assertOk()->assertSee('Unknown')->assertSee('Gate march.mp3');
    $this->post("/orders/$order->id/place");
    $results = Result::query()->where('order_id', $order->id)->orderBy('id')->get();
    expect($results->map(fn (Result $one): string => $one->state->value)->all())->toBe(['done', 'done'])
        ->and($results[0]->path)->toBe($root.'/MUSIC/Unknown/Gate march.mp3')->and($results[1]->path)
        ->toBe($root.'/MUSIC/Unknown/Lift waltz.mp3')
        ->and(md5_file($results[0]->path))->toBe(md5_file($ready->path))->and($results[1]->plannedAs()->isKept())->toBeFalse();
    $list = (string) file_get_contents(glob($root.'/LISTS/*.m3u8')[0]);
    expect(explode("\n", trim($list)))->toBe(['#EXTM3U', '#EXTINF:1,Gate march.mp3', '../MUSIC/Unknown/Gate march.mp3',
        '#EXTINF:1,Lift waltz.mp3',
        '../MUSIC/Unknown/Lift waltz.mp3']);
    // Everything in its own format: the one that it would take is made anew as well.
    $this->post('/outside/players', ['player' => 'Pocket', 'sources' => (string) $ready->id, 'all' => '1']);
    $this->get('/orders/'.Order::query()->latest('id')->value('id'))->assertOk();
    $this->post('/orders/'.Order::query()->latest('id')->value('id').'/place');
    // It is a destination, once, and no recipe.
    expect(Preset::query()->get()->map(fn (Preset $one): array => [$one->kind, $one->name])->all())->toBe([[PresetKind::Destination,
        'player-pocket']]);
    $again = Result::query()->latest('id')->firstOrFail();
    expect($again->plannedAs()->isKept())->toBeFalse()->and($again->path)->toBe($root.'/MUSIC/Unknown/Gate march 2.mp3');
    // What is taken off is gone from it alone, with the folders that it leaves empty.
    $this->get('/outside/players')->assertSee('MUSIC/Unknown/Lift waltz.mp3');
    $this->post('/outside/players/remove', ['player' => 'Pocket', 'files' => ['MUSIC/Unknown/Lift waltz.mp3', '../../octavox.sqlite',
        'player.json', '../x']])
        ->assertSessionHas('said', 'One file was taken off the player; what they were made of stays.');
    expect(is_file($root.'/MUSIC/Unknown/Lift waltz.mp3'))->toBeFalse()->and(is_file($root.'/player.json'))->toBeTrue()
        ->and(is_file($wave->path))->toBeTrue();
});

it('sends results, and never writes more than fits', function () {
    $source = $this->bring('Long tune.wav', $this->wave(480_000));
    $this->order(['sources' => (string) $source->id, 'format' => 'mp3', 'quality' => 'kbps:128']);
    $result = Result::query()->sole();
    $root = pocket($this, 2_000_000);
    $this->post('/results/many', ['do' => 'player', 'results' => (string) $result->id])->assertRedirect('/outside/players?results='.$result
        ->id);
    $this->get('/outside/players?results='.$result->id)->assertSee('Send the 1 marked result');
    $this->post('/outside/players', ['player' => 'Pocket', 'results' => (string) $result->id])->assertRedirect();
    $this->post('/orders/'.Order::query()->latest('id')->value('id').'/place');
    expect(Result::query()->latest('id')->firstOrFail()->state)->toBe(ResultState::Done);
    // There is no room for a second one: it waits, and goes on once there is.
    $full = $root.'/MUSIC/other.bin';
    file_put_contents($full, random_bytes(900_000));
    $this->post('/outside/players', ['player' => 'Pocket', 'sources' => (string) $source->id]);
    $this->post('/orders/'.Order::query()->latest('id')->value('id').'/place');
    $waiting = Result::query()->latest('id')->firstOrFail();
    expect($waiting->state)->toBe(ResultState::Waiting)->and(app(App\Results\Queries\ResultRoom::class)->isThereFor($waiting))->toBeFalse()
        ->and(array_sum(array_map(filesize(...), glob($root.'/MUSIC/{*.*,*/*.*}', GLOB_BRACE))))->toBeLessThan(2_000_000);
});

it('loses nothing where a player is pulled out in the middle, and goes on when it is back', function () {
    $root = pocket($this);
    $source = $this->bring('Lift waltz.wav', $this->wave(50_000));
    $this->post('/outside/players', ['player' => 'Pocket', 'sources' => (string) $source->id]);
    $order = Order::query()->latest('id')->firstOrFail();
    Queue::fake([MakeResult::class]);
    $this->post("/orders/$order->id/place");
    $result = Result::query()->sole();
    $this->get('/outside/players')->assertSee('1 still to be written; leave it plugged in');
    rename($root, $this->home.'/elsewhere');
    app()->call([new MakeResult, 'handle']);
    expect($result->refresh()->state)->toBe(ResultState::Failed)->and(is_dir($root))->toBeFalse();
    $this->post('/outside/players', ['player' => 'Pocket', 'sources' => '1'])->assertSessionHas('said',
        'This player is no longer plugged in; nothing was lost.');
    rename($this->home.'/elsewhere', $root);
    $this->get('/outside/players')->assertSee('Go on with 1 that could not be written');
    $this->post('/outside/players/again', ['player' => 'Pocket'])->assertSessionHas('said', '1 begun again.');
    app(Shelves::class)->fence();
    app()->call([new MakeResult, 'handle']);
    expect($result->refresh()->state)->toBe(ResultState::Done)->and(is_file($root.'/MUSIC/Unknown/Lift waltz.mp3'))->toBeTrue();
});

it('says where a description cannot be read, and goes nowhere that is none of the player’s', function (string $json) {
    $root = $this->home.'/players/Odd';
    mkdir($root, 0777, true);
    file_put_contents($root.'/player.json', $json);
    $this->get('/outside/players')->assertOk()->assertSee('Odd')->assertSee('cannot be read');
    $source = $this->bring('a.wav', $this->wave(4800));
    $this->post('/outside/players', ['player' => 'Odd', 'sources' => (string) $source->id])->assertRedirect('/outside/players');
    expect(Order::query()->count())->toBe(0);
})->with(['none' => '', 'no JSON' => '{{{', 'a list' => '[1,2]', 'no body' => '{"version":1,"destination":{}}', 'a later version' => '{"version":9,"body":{},"destination":{}}',
    'no destination' => '{"version":1,"body":{"capacity_bytes":1,"folder":"","names":"","playlists":null},"destination":{"title":"x"}}']);

it('keeps folders of a description within the player', function () {
    $root = pocket($this);
    $json = str_replace('"MUSIC"', '"..\/..\/MUSIC\/..\/x"', (string) file_get_contents($root.'/player.json'));
    file_put_contents($root.'/player.json', $json);
    $source = $this->bring('a.wav', $this->wave(4800));
    $this->post('/outside/players', ['player' => 'Pocket', 'sources' => (string) $source->id])->assertRedirect();
    $this->post('/orders/'.Order::query()->latest('id')->value('id').'/place');
    expect(Result::query()->sole()->path)->toBe($root.'/MUSIC/x/Unknown/a.mp3');
});
