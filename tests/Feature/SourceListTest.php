<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Sources\Models\Source;

/** @return list<string> */
function listed(mixed $test, string $query): array
{
    return $test->titles("/sources?$query");
}

it('sorts and narrows the list of sources by what is in them', function () {
    $this->bring('b.wav', Tests\TestCase::wave(4800));
    $this->bring('recorder.mp4', (string) file_get_contents(dirname(__DIR__, 2).'/core/tests/fixtures/recorder.mp4'));
    $this->bring('broken.mp4', 'these are my notes, and no film');
    Source::query()->where('name', 'b.wav')->update(['folder' => 'z', 'worst' => null]);
    expect(listed($this, 'show=codec:pcm'))->toBe(['b.wav'])->and(listed($this, 'show=codec:opus'))->toBe(['recorder.mp4'])
        ->and(listed($this, 'show=layout:stereo&by=name'))->toContain('b.wav')
        ->and(listed($this, 'show=stop'))->toBe(['broken.mp4'])->and(listed($this, 'show=findings'))->toContain('broken.mp4')->not
        ->toContain('b.wav')
        ->and(listed($this, 'show=sound'))->toContain('b.wav')->not->toContain('broken.mp4')
        ->and(listed($this, 'by=folder'))->toHaveCount(3)->and(array_slice(listed($this, 'by=folder'), -1))->toBe(['b.wav'])
        ->and(listed($this, 'by=container'))->toHaveCount(3)->and(listed($this, 'show=nonsense'))->toHaveCount(3);
    $this->get('/sources?show=codec:vorbis&find=x')->assertOk()->assertSee('No source is like that and has “x”');
    $this->get('/sources?show[]=1&by[]=2')->assertOk();
    $this->get('/sources?show=codec:'.urlencode("' or 1=1 --"))->assertOk()->assertSee('No source is like that');
    $this->get('/sources?show=picture')->assertOk()->assertSee('value="codec:opus"', false)->assertSee('value="layout:', false);
});

it('keeps the order of a list: as somebody wants it, and that of a playlist on the sheet', function () {
    $this->get('/sources?by=name')->assertSee('<option value="name" selected>', false);
    $this->get('/sources')->assertSee('<option value="name" selected>', false);
    $this->get('/sources?by=new')->assertSee('<option value="new" selected>', false);
    $folder = $this->home.'/tapes';
    mkdir($folder);
    foreach (['c', 'a', 'b'] as $number => $name) {
        file_put_contents("$folder/$name.wav", Tests\TestCase::wave(100 + $number));
    }
    file_put_contents("$folder/evening.m3u", "c.wav\na.wav\nb.wav\n");
    config(['octavox.shelves' => "Tapes=$folder"]);
    $this->post('/shelves/Tapes', ['paths' => json_encode(['evening.m3u'])])->assertRedirect();
    // The page shows the newest first, and a script sends what it shows.
    $shown = Source::query()->orderByDesc('id')->pluck('id')->all();
    $this->post('/ticks', ['sources' => implode(',', $shown), 'on' => '1']);
    expect(Order::query()->sole()->lines()->with('source')->get()->map(fn ($line): string => $line->source->name)->all())->toBe(['c.wav',
        'a.wav', 'b.wav']);
    // By name it is as it is shown.
    $this->post('/ticks', ['sources' => '', 'on' => '0']);
    $this->get('/sources?by=name');
    $this->post('/ticks', ['sources' => Source::query()->orderBy('name')->pluck('id')->implode(','), 'on' => '1']);
    expect(Order::query()->latest('id')->firstOrFail()->lines()->with('source')->get()->map(fn ($line): string => $line->source->name)
        ->all())
        ->toBe(['a.wav', 'b.wav', 'c.wav']);
});
