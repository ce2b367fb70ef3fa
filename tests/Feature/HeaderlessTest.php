<?php

declare(strict_types=1);

use App\Results\Models\Result;
use App\Sources\Models\Source;
use App\Sources\Values\SourceState;
use Tests\TestCase;

/** Samples of 16 bits of a rising tone, without a header, the high byte first. */
function bareSamples(int $frames = 24_000): string
{
    $data = '';
    for ($index = 0; $index < $frames; $index++) {
        $data .= pack('n', ((int) (9000 * sin($index * 0.05 + $index * $index * 0.000002) + 500 * sin($index * 1.1))) & 0xFFFF);
    }

    return $data;
}

it('proposes what a file without a header holds, plays it, reads it as that, and makes something of it', function () {
    $source = $this->bring('take.raw', bareSamples());
    expect($source->state)->toBe(SourceState::Unreadable);
    $this->get("/sources/$source->id")->assertSee('Try it as sound without a header');
    $this->get("/sources/$source->id/headerless")->assertOk()->assertSee('16 bit, high byte first')->assertSee('pcm16big');
    $wave = $this->get("/sources/$source->id/headerless/sound?as=pcm16big:16000:1")->assertOk()->assertHeader('Content-Type', 'audio/wav')
        ->streamedContent();
    expect(unpack('V', substr($wave, 24, 4))[1])->toBe(16_000)->and(substr($wave, 44, 200))->toBe(implode('', array_map(strrev(...),
        str_split(substr(bareSamples(), 0, 200), 2))));
    $this->get("/sources/$source->id/headerless/sound?as=nonsense")->assertStatus(400);
    $this->put("/sources/$source->id/headerless", ['kind' => 'pcm16big', 'rate' => '16000', 'channels' => '1', 'remember' => '1',
        'recorder' => 'Field box'])->assertRedirect("/sources/$source->id");
    $source->refresh();
    expect($source->state)->toBe(SourceState::Ready)->and($source->tracks()->sole()->rate)->toBe(16_000)
        ->and($source->tracks()->sole()->measured())->not->toBeNull();
    $this->get("/sources/$source->id")->assertSee('Without a header')->assertOk();
    $this->get("/sources/$source->id/tracks/1/hear")->assertOk();
    $this->order(['sources' => $source->id, 'format' => 'wav'])->assertRedirect();
    expect(substr((string) file_get_contents((string) Result::query()->sole()->path), 44, 200))->toBe(substr($wave, 44, 200));
    // Another file of that recorder is read alike; one that tells itself what it is is read as what it is.
    $next = $this->bring('next.RAW', bareSamples(12_000));
    expect($next->state)->toBe(SourceState::Ready)->and($next->stated)->toBe('pcm16big:16000:1');
    $told = $this->bring('told.raw', TestCase::wave());
    expect($told->state)->toBe(SourceState::Ready)->and($told->stated)->toBeNull()->and($told->container)->toBe('wav');
    $this->get("/sources/$told->id/headerless")->assertRedirect("/sources/$told->id");
    $this->get('/settings')->assertSee('Field box')->assertSee('.raw');
    $this->delete('/settings/recorders/raw');
    expect($this->bring('late.raw', bareSamples(9000))->state)->toBe(SourceState::Unreadable);
    // It was not that after all.
    $this->put("/sources/$source->id/headerless", ['kind' => 'pcm8', 'rate' => '8000', 'channels' => '2']);
    expect($source->refresh()->tracks()->sole()->channels)->toBe(2);
});

it('reads waiting files of a recorder as soon as its format is known, and refuses what is no format', function () {
    [$first, $second] = [$this->bring('a.box', bareSamples(8000)), $this->bring('b.box', bareSamples(8100))];
    $this->put("/sources/$first->id/headerless", ['kind' => 'pcm16big', 'rate' => '8000', 'channels' => '99'])
        ->assertRedirect("/sources/$first->id/headerless")->assertSessionHas('said');
    expect($first->refresh()->state)->toBe(SourceState::Unreadable);
    $this->put("/sources/$first->id/headerless", ['kind' => 'pcm16big', 'rate' => '8000', 'channels' => '1', 'remember' => '1']);
    expect(Source::query()->where('state', SourceState::Ready)->pluck('id')->all())->toBe([$first->id, $second->id]);
    $this->bring('c.wav', TestCase::wave());
    $this->put('/sources/3/headerless', ['kind' => 'pcm16big'])->assertNotFound();
});
