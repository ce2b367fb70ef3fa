<?php

declare(strict_types=1);

use App\Sources\Models\Source;
use App\Sources\Values\SourceState;
use Tests\TestCase;

it('does not take the same content in twice, says which one it equals, and leads there', function () {
    $first = $this->bring('first.wav', TestCase::wave(4800));
    $again = $this->bring('other name.wav', TestCase::wave(4800));
    expect($again->refresh()->state)->toBe(SourceState::Unreadable)->and($again->same_as)->toBe($first->id)
        ->and($again->error_says)->toContain('the very content of “first.wav”')->and(is_file($again->path))->toBeFalse();
    $this->get('/sources')->assertOk()->assertSee('Go there')->assertSee("/sources/$first->id");
    $this->get("/sources/$again->id")->assertOk()->assertSee('Go there');
    // As long, but not the same.
    $bytes = TestCase::wave(4800);
    $bytes[4000] = chr(ord($bytes[4000]) ^ 1);
    expect($this->bring('one bit.wav', $bytes)->state)->toBe(SourceState::Ready);
});

it('leaves files of shelves where they are, and takes one again once the other left the list', function () {
    foreach (['one.wav', 'two.wav'] as $name) {
        file_put_contents($this->home."/shelf/$name", TestCase::wave(4800));
    }
    $this->post('/shelves/Videos', ['paths' => ['one.wav', 'two.wav']]);
    [$one, $two] = Source::query()->orderBy('id')->get()->all();
    expect($two->error_code)->toBe('same-content')->and(is_file($two->path))->toBeTrue();
    $this->delete("/sources/$one->id");
    $this->post('/shelves/Videos', ['paths' => ['two.wav']]);
    expect($two->refresh()->error_says)->toBeNull()->and($two->state)->toBe(SourceState::Ready)->and($two->same_as)->toBeNull()
        ->and(Source::query()->count())->toBe(1);
});

it('is not deceived by a mark that two files have in common', function () {
    $first = $this->bring('first.wav', TestCase::wave(4800));
    Source::query()->whereKey($first->id)->update(['content' => 'stolen']);
    $second = $this->bring('second.wav', TestCase::wave(4900));
    Source::query()->whereKey($first->id)->update(['content' => $second->content]);
    $this->delete("/sources/$second->id");
    expect($this->bring('third.wav', TestCase::wave(4900))->state)->toBe(SourceState::Ready);
});

it('takes what is here already all the same where somebody wants that, uploads too', function () {
    $first = $this->bring('first.wav', TestCase::wave(1000));
    $again = $this->bring('again.wav', TestCase::wave(1000));
    expect($again->refresh()->same_as)->toBe($first->id)->and(is_file($again->path))->toBeFalse();
    $this->get("/sources/$again->id")->assertOk()->assertSee('Take it all the same');
    $this->post("/sources/$again->id/twice")->assertRedirect("/sources/$again->id")->assertSessionHas('said',
        'It is taken in, though its content is here twice then.');
    expect($again->refresh()->isReady())->toBeTrue()->and($again->same_as)->toBeNull()->and(hash_file('sha256', $again->path))
        ->toBe(hash_file('sha256', $first->path))
        ->and($first->refresh()->isReady())->toBeTrue();
    $this->get("/sources/$again->id")->assertOk()->assertDontSee('Take it all the same');
    $this->post("/sources/$first->id/twice")->assertSessionHas('said',
        'Nothing has this content any longer, so there is nothing to take twice.');
});
