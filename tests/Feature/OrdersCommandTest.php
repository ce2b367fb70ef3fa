<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Results\Jobs\MakeResult;
use App\Results\Queries\NextResult;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Queue;
use Tests\TestCase;

it('lists orders and changes them from the command line', function () {
    Queue::fake([MakeResult::class]);
    expect(Artisan::call('octavox:orders'))->toBe(0)->and(Artisan::output())->toContain('Nothing was ordered yet.');
    foreach (['a', 'b'] as $name) {
        $order = $this->draft(['format' => 'flac'], "$name.wav");
        $this->post("/orders/$order->id/place");
    }
    [$first, $second] = Order::query()->orderBy('id')->get()->all();
    expect(Artisan::call('octavox:orders'))->toBe(0)->and(Artisan::output())->toContain('0 of 1 done');
    $said = function (array $words): array {
        expect(Artisan::call('octavox:orders', $words + ['--json' => true]))->toBe(0);

        return json_decode(Artisan::output(), true)['orders'];
    };
    expect(array_column($said([]), 'id'))->toBe([$second->id, $first->id])
        ->and($said(['order' => (string) $second->id, '--first' => true])[0]['priority'])->toBeGreaterThan($first->priority)
        ->and($said(['order' => (string) $first->id, '--hold' => true])[0]['held'])->toBeTrue()
        ->and($said(['order' => (string) $first->id, '--go-on' => true])[0]['held'])->toBeFalse()
        ->and($said(['order' => (string) $first->id, '--cancel' => true])[0]['results']['open'])->toBe(0)
        ->and($said(['order' => (string) $first->id, '--retry' => true])[0]['results']['open'])->toBe(1);
    $said(['order' => 'all', '--hold' => true]);
    expect(app(NextResult::class)->isHeld())->toBeTrue();
    $said(['order' => 'all', '--go-on' => true]);
    expect(app(NextResult::class)->isHeld())->toBeFalse();
    foreach ([['order' => 'x'], ['--hold' => true], ['order' => '1', '--hold' => true, '--first' => true], ['order' => 'all', '--cancel' => true]] as $wrong) {
        expect(Artisan::call('octavox:orders', $wrong))->toBe(2);
    }
    expect(Artisan::call('octavox:orders', ['order' => '999']))->toBe(1);
});

it('takes what a playlist on a shelf names, and says what is not there', function () {
    mkdir($this->home.'/shelf/lists');
    file_put_contents($this->home.'/shelf/a.wav', TestCase::wave(300));
    file_put_contents($this->home.'/shelf/lists/b.wav', TestCase::wave(310));
    file_put_contents($this->home.'/outside.wav', TestCase::wave(320));
    file_put_contents($this->home.'/shelf/lists/day.m3u8', implode("\n", ['#EXTM3U', '../a.wav', 'b.wav', 'gone.wav', '../../outside.wav',
        $this->home.'/shelf/a.wav', '/etc/passwd', 'http://radio.example/x']));
    $this->post('/shelves/Videos', ['paths' => json_encode(['lists/day.m3u8'])])->assertRedirect('/sources')
        ->assertSessionHas('said',
            '2 files taken from Videos; nothing was copied. 3 that a playlist names are not on this shelf: gone.wav, '
                .'../../outside.wav, /etc/passwd. 1 of its lines are addresses on a network, which are not fetched.');
    expect(Source::query()->pluck('name')->all())->toBe(['a.wav', 'b.wav']);
    file_put_contents($this->home.'/shelf/lists/empty.pls', '[playlist]');
    $this->post('/shelves/Videos', ['paths' => json_encode(['lists/empty.pls'])])
        ->assertSessionHas('said', 'There is no recording in what was ticked, so nothing was taken.');
    $list = $this->bring('day.m3u8', "a.wav\n");
    $this->get("/sources/$list->id")->assertSee('This is a playlist')->assertDontSee('without a header');
});

it('reads a playlist of ten thousand lines in bounds, and reaches nothing beside the shelf', function (string $kind) {
    mkdir($this->home.'/shelf/lists');
    file_put_contents($this->home.'/shelf/a.wav', TestCase::wave(300));
    file_put_contents($this->home.'/outside.wav', TestCase::wave(320));
    $lines = [];
    for ($line = 0; $line < 10_000; $line++) {
        $lines[] = match ($line % 5) {
            0 => 'https://radio.example/'.$line,
            1 => str_repeat('../', $line % 90 + 2).'outside.wav',
            2 => '/etc/../etc/./passwd',
            3 => "gone $line ".str_repeat('x', $line % 4000).'.wav',
            default => '../lists/../a.wav',
        };
    }
    file_put_contents($this->home.'/shelf/lists/long.'.$kind, match ($kind) {
        'pls' => "[playlist]\n".implode("\n", array_map(fn (int $index): string => 'File'.($index + 1).'='.$lines[$index],
            array_keys($lines))),
        'xspf' => '<playlist><trackList>'.implode('', array_map(fn (string $one): string => '<track><location>'.str_replace(' ', '%20',
            $one).'</location></track>', $lines))
            .'</trackList></playlist>',
        default => implode("\r\n", $lines),
    });
    $this->post('/shelves/Videos', ['paths' => json_encode(['lists/long.'.$kind])])->assertRedirect('/sources')
        ->assertSessionHas('said', fn (string $said): bool => str_starts_with($said, '1 file taken from Videos') && strlen($said) < 600
            && str_contains($said, '2000 of its lines are addresses'));
    expect(Source::query()->pluck('name')->all())->toBe(['a.wav']);
})->with(['m3u8', 'pls', 'xspf']);
