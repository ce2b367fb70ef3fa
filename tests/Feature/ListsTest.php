<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Results\Jobs\MakeResult;
use App\Results\Models\ReceiptFacts;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Tests\TestCase;

/** Sources as a reader leaves them, without their files. */
function sourcesNamed(string ...$names): void
{
    foreach ($names as $number => $name) {
        Source::query()->create(['name' => $name, 'folder' => $number % 2 === 0 ? 'Day one' : '', 'path' => "/x/$number",
            'origin' => 'shelf', 'state' => 'ready',
            'container' => 'wav', 'bytes' => 1000 * ($number + 1), 'seconds' => 100 - $number]);
    }
}

/** @return list<string> names as the page lists them */
function listedIn(string $page): array
{
    preg_match_all('/aria-label="Choose ([^"]+)"/', $page, $found);

    return array_values(array_diff(array_map(fn (string $name): string => html_entity_decode($name, ENT_QUOTES), $found[1]),
        ['all on this page']));
}

it('sorts sources in every way it offers', function (string $by, array $names) {
    sourcesNamed('b.wav', 'A.wav', 'c.wav');
    expect(listedIn((string) $this->get("/sources?by=$by")->assertOk()->getContent()))->toBe($names);
})->with([
    ['new', ['c.wav', 'A.wav', 'b.wav']],
    ['size', ['c.wav', 'A.wav', 'b.wav']],
    ['length', ['b.wav', 'A.wav', 'c.wav']],
    ['nonsense', ['c.wav', 'A.wav', 'b.wav']],
]);

it('finds sources by any part of their names and folders, taken as it is written', function (string $find, array $names) {
    sourcesNamed('100% lift.wav', 'under_score.wav', "It's \"odd\".wav", 'back\\slash.wav', 'Canàl <b>.wav');
    expect(listedIn((string) $this->get('/sources?find='.urlencode($find))->assertOk()->getContent()))->toBe($names);
})->with([
    ['%', ['100% lift.wav']],
    ['_', ['under_score.wav']],
    ['\\', ['back\\slash.wav']],
    ['"odd"', ["It's \"odd\".wav"]],
    ['canàl', ['Canàl <b>.wav']],
    ['LIFT', ['100% lift.wav']],
    ['day one', ['Canàl <b>.wav', "It's \"odd\".wav", '100% lift.wav']],
    ["'; drop table sources; --", []],
    [str_repeat('x', 5000), []],
]);

it('gives pages of sources that hold all of them, each once', function () {
    sourcesNamed(...array_map(fn (int $number): string => "clip $number.wav", range(1, 130)));
    $all = [];
    for ($address = '/sources'; $address !== null; $address = $found[1] ?? null) {
        $page = (string) $this->get(html_entity_decode($address))->assertOk()->getContent();
        array_push($all, ...listedIn($page));
        preg_match('/href="([^"]+)" rel="next"/', $page, $found);
    }
    expect($all)->toHaveCount(130)->and(array_unique($all))->toHaveCount(130);
    foreach (['0', '-1', '99', 'x', '1e9'] as $place) {
        $this->get("/sources?after=$place&before=$place")->assertOk();
    }
});

it('shows each state of a result, what can be done, and nothing else', function (ResultState $state, array $shown, array $hidden) {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    $this->order(['sources' => $source->id, 'format' => 'mp3']);
    $result = Result::query()->sole();
    $result->update(['state' => $state, 'error_says' => $state === ResultState::Failed ? 'The drive is full; free some space.' : null,
        'done_samples' => 500, 'speed' => 20.0]);
    $page = $this->get('/results')->assertOk();
    foreach ($shown as $text) {
        $page->assertSee($text);
    }
    foreach ($hidden as $text) {
        $page->assertDontSee($text);
    }
})->with([
    'waiting' => [ResultState::Waiting, ['a.mp3', 'Cancel'], ['Download', 'Try again']],
    'making' => [ResultState::Making, ['a.mp3', 'Cancel', '50'], ['Download', 'Try again']],
    'failed' => [ResultState::Failed, ['The drive is full', 'Try again'], ['Download', 'Cancel']],
    'cancelled' => [ResultState::Cancelled, ['a.mp3'], ['Download']],
    'done, but its file is gone' => [ResultState::Done, ['a.mp3'], ['Cancel']],
]);

it('cancels and begins again only where that can be', function (ResultState $state, ResultState $cancelled, ResultState $again) {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    $this->order(['sources' => $source->id, 'format' => 'mp3']);
    $result = Result::query()->sole();
    $result->update(['state' => $state]);
    $this->post("/results/$result->id/cancel")->assertOk();
    expect($result->refresh()->state)->toBe($cancelled)->and($result->cancelling)->toBe($state === ResultState::Making);
    $result->update(['state' => $state, 'cancelling' => false]);
    Queue::fake();
    $this->post("/results/$result->id/retry")->assertOk();
    $this->post("/results/$result->id/retry")->assertOk();
    expect($result->refresh()->state)->toBe($again);
    Queue::assertPushed(MakeResult::class, $again === ResultState::Waiting && $state !== ResultState::Waiting ? 1 : 0);
})->with([
    [ResultState::Waiting, ResultState::Cancelled, ResultState::Waiting],
    [ResultState::Making, ResultState::Making, ResultState::Making],
    [ResultState::Failed, ResultState::Failed, ResultState::Waiting],
    [ResultState::Cancelled, ResultState::Cancelled, ResultState::Waiting],
    [ResultState::Done, ResultState::Done, ResultState::Done],
]);

it('lists orders by pages, newest first, and one alone where it is asked for', function () {
    $source = $this->bring('a.wav', TestCase::wave(100));
    Queue::fake();
    foreach (range(1, 30) as $number) {
        $this->order(['sources' => $source->id, 'format' => 'wav', 'name' => "take $number"]);
    }
    $first = (string) $this->get('/results')->assertOk()->assertSeeInOrder(['take 30.wav', 'take 29.wav', 'take 23.wav'])->getContent();
    expect($first)->not->toContain('take 22.wav')->and(Order::query()->count())->toBe(30)
        ->and(preg_match('/href="([^"]+)" rel="next"/', $first, $next))->toBe(1);
    $this->get(html_entity_decode($next[1]))->assertOk()->assertSeeInOrder(['take 22.wav', 'take 15.wav'])->assertDontSee('take 23.wav')
        ->assertDontSee('take 14.wav');
    $this->get('/results?order=5')->assertOk()->assertSee('take 5.wav')->assertDontSee('take 6.wav');
    DB::enableQueryLog();
    $this->get('/results')->assertOk();
    // One for each of the eight orders that are shown, however many there are.
    expect(count(DB::getQueryLog()))->toBeLessThan(15);
});

it('tells a receipt line by line', function (array $order, array $lines) {
    $source = $this->bring('a.wav', TestCase::wave(48_000));
    $this->order(['sources' => $source->id] + $order)->assertRedirect();
    $result = Result::query()->sole();
    $told = array_column(ReceiptFacts::of($result)?->lines() ?? [], 1, 0);
    foreach ($lines as $name => $says) {
        expect($told[$name] ?? null)->toMatch($says, $name);
    }
    expect(ReceiptFacts::of($result)?->checksum())->toBe('xxh128:'.hash_file('xxh128', $result->path))
        ->and(ReceiptFacts::of($result)?->bytes())->toBe(filesize($result->path));
})->with([
    'kept' => [['format' => 'wav'],
        ['Samples' => '/^48,000 at 48 kHz, stereo$/', 'Format' => '/^16-bit PCM$/', 'Size' => '/^192,044 bytes; 192,000 in the source$/',
            'Verified' => '/every sample is the one that was meant/', 'Made' => '/copied untouched/']],
    'lossless' => [['format' => 'flac'],
        ['Format' => '/^16-bit FLAC$/', 'Verified' => '/every sample/', 'Level before' => '/^peak -\d/', 'Level after' => '/^peak -\d/']],
    'lossy' => [['format' => 'mp3', 'layout' => 'mono'],
        ['Samples' => '/mono$/', 'Verified' => '/length, layout and level agree/', 'Made' => '/stereo to mono, encode MP3/']],
    'a level' => [['format' => 'wav', 'level_kind' => 'peak', 'level_value' => '-6'],
        ['Level set' => '/^[+-]\d+\.\d dB, plain gain$/', 'Made' => '/peak at -6.0 dBFS/']],
    'a level that is held' => [['format' => 'wav', 'level_kind' => 'rms', 'level_value' => '-3'],
        ['Level set' => '/the ceiling of the true peak kept it from more$/']],
]);
