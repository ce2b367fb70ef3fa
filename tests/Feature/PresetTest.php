<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Presets\Models\Preset;
use App\Presets\Queries\Presets;
use App\Presets\Values\DestinationInput;
use App\Presets\Values\PresetKind;
use App\Sources\Models\Source;
use App\Upkeep\Recover;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\File;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\Destinations;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\Recipe;
use Octavox\Core\Order\Recipes;
use Symfony\Component\Process\Process;
use Tests\TestCase;

it('lists what ships, starred first, then used last', function () {
    $all = $this->titles('/recipes');
    expect($all)->toHaveCount(count(Recipes::shipped()))->and($this->titles('/destinations'))
        ->toHaveCount(count(Destinations::shipped()));
    $order = $this->draft([], 'a.wav');
    $this->patch("/orders/$order->id", ['goes' => 'by:put-away']);
    expect($this->titles('/recipes')[0])->toBe('To put away');
    $this->post('/recipes/on-air/star', ['on' => 1])->assertRedirect('/recipes');
    expect(array_slice($this->titles('/recipes'), 0, 2))->toBe(['On the air', 'To put away']);
    $this->post('/recipes/on-air/star', ['on' => 0]);
    $this->post('/recipes/nowhere/star', ['on' => 1])->assertRedirect();
    expect($this->titles('/recipes')[0])->toBe('To put away')->and(Preset::query()->count())->toBe(2);
    foreach (['/recipes/nowhere', '/destinations/nowhere', '/recipes/nowhere/file', '/recipes/..', '/things'] as $address) {
        $this->get($address)->assertNotFound();
    }
});

it('copies, changes and deletes a recipe; those that ship stay as they are', function () {
    $source = $this->bring('a.wav', TestCase::wave(48_000));
    $this->get('/recipes/episode')->assertOk()->assertSee('Copy it, to change it')->assertDontSee('Keep the changes')
        ->assertSee('encode MP3 at 128 kbit/s');
    $this->post('/recipes/episode/copy')->assertRedirect('/recipes/podcast-episode-copied');
    $this->get('/recipes/podcast-episode-copied?quality=kbps:96&layout=mono')->assertOk()->assertSee('encode MP3 at 96 kbit/s')
        ->assertSee('stereo to mono')->assertSee('a.wav')->assertSee('Keep the changes');
    $this->put('/recipes/podcast-episode-copied', ['title' => 'Weekly', 'note' => 'for Mondays', 'quality' => 'kbps:96', 'layout' => 'mono',
        'name' => '{today} {stem}', 'place' => 'beside'])->assertRedirect('/recipes');
    $kept = app(Presets::class)->recipe('podcast-episode-copied');
    expect($kept?->title)->toBe('Weekly')->and($kept?->spec->sounds()[0]->rateControl?->kbps)->toBe(96)
        ->and($kept?->spec->sounds()[0]->level)->toBe('lufs:-16:-1')->and([$kept?->spec->name, $kept?->spec->place])
        ->toBe(['{today} {stem}', 'beside']);
    $this->put('/recipes/podcast-episode-copied', ['title' => ''])->assertRedirect()
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, 'title'));
    $this->put('/recipes/episode', ['title' => 'Mine'])->assertRedirect()
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, 'no recipe called'));
    $this->post('/recipes/episode/copy')->assertRedirect('/recipes/podcast-episode-copied-2');
    $this->delete('/recipes/podcast-episode-copied')->assertRedirect('/recipes');
    $this->delete('/recipes/episode')->assertRedirect('/recipes');
    expect(app(Presets::class)->recipe('podcast-episode-copied'))->toBeNull()->and(app(Presets::class)->recipe('episode'))->not->toBeNull()
        ->and(Source::query()->sole()->id)->toBe($source->id);
});

it('gives recipes and destinations away as files, and takes them in', function (string $kind, string $name) {
    $file = (string) $this->get("/{$kind}s/$name/file")->assertOk()->assertHeader('Content-Type', 'application/json')->getContent();
    $read = $kind === 'recipe' ? Recipe::fromJson($file) : Destination::fromJson($file);
    expect($read->name)->toBe($name);
    $this->post("/{$kind}s/import", ['file' => UploadedFile::fake()->createWithContent('x.json', $file)])->assertRedirect("/{$kind}s")
        ->assertSessionHas('said', 'Taken in: '.$read->title);
    expect(array_keys(app(Presets::class)->all(PresetKind::from($kind))))->toContain("$name-2");
})->with([['recipe', 'two-microphones'], ['destination', 'podcast-host']]);

it('refuses in a sentence a hostile file', function (string $kind, string $content, string $says) {
    $this->post("/{$kind}s/import", ['file' => UploadedFile::fake()->createWithContent('x.json', $content)])->assertRedirect("/{$kind}s")
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, $says));
    expect(Preset::query()->count())->toBe(0);
})->with([
    ['recipe', '', 'version'], ['recipe', 'no json', 'version'], ['recipe', '{"version":9}', 'version 9'],
    ['recipe', '{"version":1,"name":"../x","title":"x","spec":{"version":1}}', 'name'],
    ['recipe', '{"version":1,"name":"x","title":"x","spec":{"version":1,"place":"/etc"}}', 'place'],
    ['recipe', str_repeat(' ', 300_000), 'version'],
    ['destination',
        '{"version":1,"name":"x","title":"x","accepts":[{"containers":["mp3"],"codecs":["mp3"]}],"spec":{"version":1,"container":"wav"}}',
        'spec.container'],
    ['destination',
        '{"version":1,"name":"x","title":"x","accepts":[{"containers":["mp3"],"codecs":["mp3"],"least_kbps":320,"most_kbps":64}],'
        .'"spec":{"version":1,"container":"mp3"}}', 'least_kbps'],
]);

it('changes a destination of one’s own on its page', function () {
    $this->bring('a.wav', TestCase::wave(4800));
    $this->post('/destinations/radio-desk/copy')->assertRedirect('/destinations/radio-desk-copied');
    $this->get('/destinations/radio-desk-copied')->assertOk()->assertSee('A further kind')->assertSee('value="wav"', false);
    $this->put('/destinations/radio-desk-copied', ['title' => 'Night desk', 'note' => 'n', 'accepts' => [
        ['containers' => 'wav, AIFF', 'codecs' => 'pcm', 'rates' => '44100, 48000', 'bit_depths' => '24', 'most_channels' => '2',
            'picture' => 'no'],
        ['containers' => '', 'codecs' => ''],
    ], 'limits' => ['most_seconds' => '3 600', 'most_lufs' => '−18', 'plain_name' => '1', 'tags' => 'title'],
        'format' => 'aiff', 'bits' => '24'])
        ->assertRedirect('/destinations');
    $own = app(Presets::class)->destination('radio-desk-copied');
    expect($own?->title)->toBe('Night desk')->and($own?->accepts)->toHaveCount(1)->and($own?->accepts[0]->containers)->toBe(['wav', 'aiff'])
        ->and($own?->accepts[0]->rates)->toBe([44_100, 48_000])->and($own?->accepts[0]->picture)->toBeFalse()
        ->and([$own?->limits->mostSeconds, $own?->limits->mostLufs, $own?->limits->plainName])->toBe([3600, -18, true])
        ->and($own?->spec->container)->toBe('aiff')->and($own?->specWithPicture)->toBeNull();
    $this->put('/destinations/radio-desk-copied', ['title' => 'x', 'accepts' => [], 'format' => 'aiff'])->assertRedirect()
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, 'accepts'));
    $order = $this->draft([], 'b.wav');
    $this->patch("/orders/$order->id", ['goes' => 'to:radio-desk-copied'])->assertOk();
    $this->delete('/destinations/radio-desk-copied');
    $this->get("/orders/$order->id")->assertOk()->assertSee('was deleted; choose above where it goes')->assertSee('Make 0 files');
});

it('reads the page of every destination that ships as the destination that it is', function (Destination $destination) {
    $lists = fn (array $list): string => implode(', ', $list);
    $input = ['title' => $destination->title, 'note' => $destination->note, 'accepts' => array_map(fn ($kind): array => [
        'containers' => $lists($kind->containers), 'codecs' => $lists($kind->codecs), 'rates' => $lists($kind->rates),
        'bit_depths' => $lists($kind->bitDepths),
        'picture' => $kind->picture === null ? '' : ($kind->picture ? 'yes' : 'no'), 'most_channels' => (string) $kind->mostChannels,
        'least_kbps' => (string) $kind->leastKbps, 'most_kbps' => (string) $kind->mostKbps, 'constant' => $kind->constant ? '1' : '',
    ], $destination->accepts),
        'limits' => ['most_bytes' => (string) $destination->limits->mostBytes, 'most_seconds' => (string) $destination->limits->mostSeconds,
            'most_name_bytes' => (string) $destination->limits->mostNameBytes, 'most_lufs' => (string) $destination->limits->mostLufs,
            'plain_name' => $destination->limits->plainName ? '1' : '', 'plain_tags' => $destination->limits->plainTags ? '1' : '',
            'cover' => $destination->limits->cover ? '1' : '', 'broadcast' => $destination->limits->broadcast ? '1' : '',
            'index_first' => $destination->limits->indexFirst ? '1' : '',
            'tags' => $lists(array_map(fn ($field): string => $field->value, $destination->limits->tags))]];
    $document = json_decode((string) json_encode(['version' => 1, 'name' => $destination->name] + DestinationInput::document($input,
        $destination->spec)), true);
    $read = Destination::fromArray($document);
    expect($read->accepts)->toEqual($destination->accepts)->and($read->limits)->toEqual($destination->limits)->and($read->spec)
        ->toEqual($destination->spec);
})->with(fn (): array => array_map(fn (Destination $one): array => [$one], Destinations::shipped()));

it('saves what an order asks as a recipe, without what is about its own sources', function () {
    $order = $this->draft(['format' => 'mp3', 'quality' => 'kbps:96', 'name' => '{title}'], 'a.wav');
    $this->patch("/orders/$order->id/lines/{$order->lines[0]->id}", ['tags' => ['title' => 'own'], 'scope' => 'all']);
    $this->post("/orders/$order->id/recipe", ['title' => 'Für Züge'])->assertOk()->assertSee('Für Züge');
    $recipe = app(Presets::class)->recipe('fur-zuge');
    expect($recipe?->spec)->toEqual(new OutputSpec('mp3', sounds: [$order->refresh()->asked()->sounds()[0]], name: '{title}'))
        ->and(Order::query()->sole()->recipe)->toBe('fur-zuge');
    $this->post("/orders/$order->id/recipe", ['title' => 'Für Züge'])->assertOk();
    $this->post("/orders/$order->id/recipe", ['title' => '  '])->assertStatus(422)->assertSee('title');
    expect(array_keys(app(Presets::class)->all(PresetKind::Recipe)))->toContain('fur-zuge-2');
});

it('marks each source by how it stands to a destination', function () {
    $this->bring('right.wav', TestCase::wave(4800));
    $this->bring('memo.mp3', (string) file_get_contents(dirname(__DIR__, 2).'/demo/voices/memo.mp3'));
    $this->get('/sources?for=cutting-uncompressed')->assertOk()->assertSee('accepted as it is')->assertSee('sound remade')
        ->assertSee('Its sound is MP3');
    $this->get('/sources?for=web-page')->assertOk()->assertSee('accepted as it is')->assertSee('sound remade');
    $this->get('/sources?for=podcast-host')->assertOk()->assertSee('not accepted')->assertSee('no cover');
    $this->get('/sources?for=nowhere')->assertOk()->assertDontSee('accepted');
});

it('lets the command line take what people made here, and nothing that is no preset', function () {
    $listed = function (string $kind): array {
        $process = new Process([base_path('octavox'), $kind, '--json'], env: ['OCTAVOX_HOME' => config()->string('octavox.home')]);

        return array_column(json_decode($process->mustRun()->getOutput(), true)[$kind], 'name');
    };
    $this->post('/recipes/episode/copy');
    $this->post('/destinations/radio-desk/copy');
    expect($listed('recipes'))->toContain('podcast-episode-copied', 'episode')
        ->and($listed('destinations'))->toContain('radio-desk-copied', 'radio-desk');
    $wave = $this->bring('a.wav', TestCase::wave(4800));
    $make = new Process([base_path('octavox'), 'make', $wave->path, '--recipe', 'podcast-episode-copied', '--into',
        config()->string('octavox.home').'/made-here', '--json'], env: ['OCTAVOX_HOME' => config()->string('octavox.home')]);
    expect(json_decode($make->mustRun()->getOutput(), true)['results'][0]['container'])->toBe('mp3');
    file_put_contents(config()->string('octavox.home').'/recipes/broken.json', '{"version": 1, "name": "broken"}');
    expect($listed('recipes'))->not->toContain('broken');
    $this->put('/recipes/podcast-episode-copied', ['title' => 'Weekly', 'quality' => 'kbps:96', 'format' => 'mp3']);
    $this->delete('/destinations/radio-desk-copied');
    expect($listed('destinations'))->not->toContain('radio-desk-copied');
    // What a former release kept in the database alone is written at the start.
    File::deleteDirectory(config()->string('octavox.home').'/recipes');
    app(Recover::class)->atStart();
    expect($listed('recipes'))->toContain('podcast-episode-copied')->not->toContain('broken');
});

it('takes no picture and no folder of a machine from a file that somebody gives', function (string $kind, array $document) {
    $file = UploadedFile::fake()->createWithContent('x.json', (string) json_encode($document));
    $this->post("/{$kind}s/import", ['file' => $file])->assertRedirect("/{$kind}s")
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, 'cover'));
    expect(Preset::query()->count())->toBe(0);
})->with([
    ['recipe', ['version' => 1, 'name' => 'x', 'title' => 'X', 'spec' => ['version' => 1, 'container' => 'mp3', 'cover' => '/etc/passwd']]],
    ['destination', ['version' => 1, 'name' => 'x', 'title' => 'X', 'accepts' => [['containers' => ['mp3'], 'codecs' => ['mp3']]],
        'spec' => ['version' => 1, 'container' => 'mp3', 'cover' => '/home/me/secret.jpg']]],
]);
