<?php

declare(strict_types=1);

use App\Files\Shelves;
use App\Orders\Models\Order;
use App\Providers\AppServiceProvider;
use App\Results\Actions\BinResult;
use App\Results\Models\Result;
use App\Settings\Models\Setting;
use App\Settings\Queries\Settings;
use App\Sources\Models\Source;
use Illuminate\Queue\Events\JobProcessing;
use Illuminate\Queue\Jobs\SyncJob;
use Octavox\Core\Bytes\Fence;
use Tests\TestCase;

/** @return list<string> names of the shelves that are open now */
function openShelves(): array
{
    app()->forgetScopedInstances();

    return array_map(fn ($shelf): string => $shelf->name, app(Shelves::class)->all);
}

it('opens a folder as a shelf, lets results be put there, and closes it', function () {
    $folder = sys_get_temp_dir().'/octavox-shelf-'.bin2hex(random_bytes(4));
    mkdir($folder);
    file_put_contents("$folder/a.wav", TestCase::wave(700));
    $this->get('/settings')->assertOk()->assertSee('Videos')->assertSee('set by the environment');
    $this->post('/settings/shelves', ['name' => 'Recorder', 'path' => "$folder/"])->assertRedirect('/settings')
        ->assertSessionHas('said', 'The shelf is open.');
    expect(openShelves())->toBe(['Videos', 'Recorder']);
    $this->get('/shelves/Recorder')->assertOk()->assertSee('a.wav');
    $this->post('/shelves/Recorder', ['paths' => ['a.wav']]);
    expect(Source::query()->sole()->path)->toBe("$folder/a.wav")->and(app(Shelves::class)->writable())->toBe([]);
    $this->post('/settings/shelf', ['name' => 'Recorder', 'do' => 'allow']);
    app()->forgetScopedInstances();
    expect(app(Shelves::class)->writable()[0]->name)->toBe('Recorder');
    $this->post('/orders', ['sources' => '1', 'format' => 'flac']);
    $this->patch('/orders/1', ['place' => 'beside']);
    $this->post('/orders/1/place');
    expect(Result::query()->sole()->path)->toBe("$folder/a.flac");
    $this->post('/settings/shelf', ['name' => 'Recorder', 'do' => 'close']);
    expect(openShelves())->toBe(['Videos'])->and(is_file("$folder/a.wav"))->toBeTrue();
    $this->post('/settings/shelf', ['name' => 'Videos', 'do' => 'close']);
    expect(openShelves())->toBe(['Videos']);
    $this->post('/settings/shelf', ['name' => 'Videos', 'do' => 'burn'])->assertNotFound();
    exec('rm -rf '.escapeshellarg($folder));
});

it('keeps folders closed that must stay so, and says why', function (string $name, string $path, string $says) {
    mkdir($this->home.'/inner');
    $path = str_replace('@home@', $this->home, $path);
    $this->post('/settings/shelves', ['name' => $name, 'path' => $path])->assertRedirect('/settings')
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, $says) && str_contains($said, 'Nothing was changed'));
    expect(openShelves())->toBe(['Videos'])->and(Setting::query()->count())->toBe(0);
})->with([
    ['All', '/', 'stays closed'], ['Home', '@home@', 'stays closed'], ['Inner', '@home@/inner', 'stays closed'],
    ['Above', '/tmp', 'stays closed'],
    ['None', '/nowhere/at/all', 'There is no folder'], ['Relative', 'etc', 'whole path'], ['', '/usr', 'needs a name'],
    ['a:b', '/usr', 'needs a name'], ['Videos', '/usr', 'already'], ["x\0", "/usr\0/share", 'There is no folder'],
]);

it('fences what a worker opens by the shelves of now, not of when it began', function () {
    $folder = sys_get_temp_dir().'/octavox-shelf-'.bin2hex(random_bytes(4));
    mkdir($folder);
    mkdir("$folder/inside");
    symlink('/usr', "$folder/out");
    expect(Fence::holdsFolder("$folder/out/x"))->toBeTrue();
    app(App\Settings\Actions\KeepSetting::class)->set(Settings::SHELVES, [['name' => 'New', 'path' => $folder, 'writable' => true],
        'strange', ['name' => 7]]);
    event(new JobProcessing('sync', new SyncJob(app(), '{}', 'sync', 'making')));
    expect(Fence::holdsFolder("$folder/out/x"))->toBeFalse()->and(Fence::holdsFolder("$folder/inside/x"))->toBeTrue();
    exec('rm -rf '.escapeshellarg($folder));
});

it('sets how new orders begin, and leaves what somebody asks himself', function () {
    $this->put('/settings', ['goes' => 'to:hold-music', 'place' => 'beside', 'name_signs' => 'remove', 'tag_signs' => 'spell'])
        ->assertRedirect('/settings');
    $this->get('/settings')->assertOk()->assertSee('value="to:hold-music" selected', false);
    $id = $this->bring('a.wav', TestCase::wave(800))->id;
    $this->post('/ticks', ['sources' => "$id", 'on' => 1]);
    $order = Order::query()->sole();
    expect([$order->destination, $order->place, $order->asked()->nameSigns?->value, $order->asked()->tagSigns?->value])
        ->toBe(['hold-music', 'beside', 'remove', 'spell']);
    $this->post('/orders', ['sources' => "$id", 'format' => 'mp3']);
    $asked = Order::query()->latest('id')->firstOrFail();
    expect($asked->destination)->toBeNull()->and($asked->asked()->container)->toBe('mp3');
    $this->put('/settings', ['goes' => 'to:nowhere', 'place' => '/etc', 'name_signs' => 'eat', 'workers' => '9999', 'upload_hours' => '-3']);
    expect(app(Settings::class)->text(Settings::GOES))->toBe('to:hold-music')->and(app(Settings::class)->text(Settings::PLACE))->toBe('')
        ->and(app(Settings::class)->number(Settings::WORKERS))->toBeNull();
});

it('limits uploads as it is set, but for what the environment says', function () {
    $this->put('/settings', ['upload_gigabytes' => '3', 'upload_hours' => '48', 'workers' => '5', 'ring' => '1', 'notify' => '0']);
    expect(app(Settings::class)->is(Settings::RING))->toBeTrue()->and(app(Settings::class)->is(Settings::NOTIFY))->toBeFalse()
        ->and(json_decode((string) file_get_contents($this->home.'/settings.json'), true))->toBe(['workers' => 5]);
    (new AppServiceProvider(app()))->boot();
    expect(config('octavox.largest_upload'))->toBe(3_000_000_000)->and(config('octavox.upload_hours'))->toBe(48);
    config(['octavox.fixed' => ['upload_gigabytes'], 'octavox.largest_upload' => 7_000_000_000]);
    (new AppServiceProvider(app()))->boot();
    expect(config('octavox.largest_upload'))->toBe(7_000_000_000);
    $this->get('/settings')->assertSee('value="7" placeholder="7"', false)->assertSee('set by the environment');
    $this->put('/settings', ['workers' => '']);
    expect(json_decode((string) file_get_contents($this->home.'/settings.json'), true))->toBe(['workers' => null]);
});

it('empties the bin for good, and nothing else', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav', 'b.wav');
    $this->post("/orders/$order->id/place");
    [$first, $second] = Result::query()->orderBy('id')->get()->all();
    $this->get('/settings')->assertSee('Nothing is in it.');
    app(BinResult::class)->bin($first);
    $this->get('/settings')->assertSee('One thing')->assertSee('What is in it');
    $this->get('/bin')->assertSee('a.flac')->assertSee('Delete all for good');
    $this->post('/bin', ['do' => 'empty'])->assertSessionHas('said', 'One was deleted for good.');
    expect(Result::query()->whereNotNull('binned')->count())->toBe(0)->and($second->refresh()->isThere())->toBeTrue();
    $this->post('/bin', ['do' => 'empty'])->assertSessionHas('said', '0 were deleted for good.');
    $this->get('/bin')->assertSee('Nothing is in it.');
});

it('takes a program as a decoder, reads again what it matters to, and forgets it', function () {
    // Samples of which every bit is turned, in a form that nobody knows.
    $data = pack('v*', ...array_map(fn (int $index): int => $index * 3 & 0xFFFF, range(0, 47_999)));
    $source = $this->bring('turned.wav', 'RIFF'.pack('V', 36 + strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 0x7A7A, 1, 48_000, 96_000, 2,
        16)
        .'data'.pack('V', strlen($data)).($data ^ str_repeat("\xFF", strlen($data))));
    expect($source->worst)->toBe('stop');
    $this->get("/sources/$source->id")->assertSee('name a program that decodes it in the settings');
    $this->get('/settings')->assertOk()->assertSee('Decoders from outside')->assertSee('None is named.');
    $refused = fn (string $codec, string $command): mixed => $this->post('/settings/decoders', ['codec' => $codec, 'command' => $command])
        ->assertSessionHas('said')->getSession()->get('said');
    expect($refused('', '/bin/cat {path}'))->toContain('which codec')->and($refused('no such thing', '/bin/cat {path}'))
        ->toContain('No sound is called')
        ->and($refused('h264', '/bin/cat {path}'))->toContain('No sound is called')->and($refused('ape', '/bin/cat'))->toContain('{path}')
        ->and($refused('ape', '/nowhere/program {path}'))->toContain('no such program')->and(is_file($this->home.'/decoders.json'))
        ->toBeFalse();
    $command = sprintf('"%s" "%s" {path} {track}', PHP_BINARY, base_path('core/tests/fixtures/outside.php'));
    $this->post('/settings/decoders', ['codec' => 'Form 0x7A7A', 'command' => $command])->assertRedirect();
    $this->get('/settings')->assertSee('form 0x7a7a')->assertSee('outside.php')->assertDontSee('not there now');
    expect($source->refresh()->worst)->toBeNull();
    $this->order(['sources' => (string) $source->id, 'format' => 'wav', 'dither' => 'off', 'bits' => '16']);
    $result = Result::query()->sole();
    expect($result->state->value)->toBe('done');
    $made = (string) file_get_contents($result->path);
    expect(md5(substr($made, (int) strpos($made, 'data') + 8, strlen($data))))->toBe(md5($data));
    $this->post('/settings/decoders', ['codec' => 'form 0x7a7a', 'forget' => '1']);
    expect($source->refresh()->worst)->toBe('stop');
});
