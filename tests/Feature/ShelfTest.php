<?php

declare(strict_types=1);

use App\Sources\Models\Source;
use Tests\TestCase;

beforeEach(function () {
    mkdir($this->home.'/shelf/day one');
    file_put_contents($this->home.'/shelf/day one/clip.wav', TestCase::wave());
    file_put_contents($this->home.'/secret.wav', TestCase::wave());
    symlink($this->home.'/secret.wav', $this->home.'/shelf/way out.wav');
    symlink($this->home, $this->home.'/shelf/way up');
    symlink($this->home.'/shelf/day one', $this->home.'/shelf/also day one');
});

it('shows folders and files, and no link that leads out', function () {
    $this->get('/shelves')->assertRedirect('/shelves/Videos');
    $this->get('/shelves/Videos')->assertOk()->assertSee('day one/')->assertSee('also day one/')->assertDontSee('way out')
        ->assertDontSee('way up');
    $this->get('/shelves/Videos?folder=day%20one')->assertOk()->assertSee('clip.wav');
});

it('takes files where they are, once', function () {
    foreach ([1, 2] as $time) {
        $this->post('/shelves/Videos', ['paths' => ['day one/clip.wav']])->assertRedirect('/sources');
    }
    $source = Source::query()->sole();
    expect($source->path)->toBe(realpath($this->home.'/shelf/day one/clip.wav'))->and($source->folder)->toBe('Videos/day one')
        ->and($source->isReady())->toBeTrue();
    $this->delete("/sources/$source->id")->assertRedirect('/sources');
    expect(is_file($source->path))->toBeTrue()->and(Source::query()->count())->toBe(0);
});

it('never leaves the shelf', function (string $path) {
    $this->get('/shelves/Videos?folder='.rawurlencode($path))->assertNotFound();
    $this->post('/shelves/Videos', ['paths' => [$path]])->assertNotFound();
    expect(Source::query()->count())->toBe(0);
})->with([
    '..', '../secret.wav', 'day one/../../secret.wav', 'way out.wav', 'way up', 'way up/secret.wav', "day one/clip.wav\0.jpg",
    "\xC0\xAE\xC0\xAE/secret.wav", '..\\secret.wav', './/../secret.wav', 'nothing here', str_repeat('a/', 3000),
]);

it('knows only the shelves that were opened', function () {
    $this->get('/shelves/Other')->assertNotFound();
    config(['octavox.shelves' => '']);
    $this->get('/shelves')->assertOk()->assertSee('No folder is open');
});
