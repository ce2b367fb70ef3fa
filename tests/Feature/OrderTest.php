<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use App\Upkeep\Recover;
use App\Work\WorkKind;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Make\Comparison;
use Tests\TestCase;

it('shows before making exactly what will be made', function () {
    $source = $this->bring('clip.wav', TestCase::wave());
    $this->sheet("/order?sources=$source->id&format=wav")->assertOk()->assertSee('clip.wav')
        ->assertSee('the 16-bit PCM sound is copied untouched')->assertSee('same size')->assertSee('Make 1 file');
    $page = $this->sheet("/order?sources=$source->id&format=mp3&quality=podcast&layout=mono&name={stem}+for+air")->assertOk()
        ->assertSee('clip for air.mp3')->assertSee('stereo to mono')->assertSee('encode MP3 at 128 kbit/s')
        ->assertSee('128 kbit/s, constant');
    expect($page->getContent())->toContain('class="remade"');

    $this->order(['sources' => $source->id, 'format' => 'mp3', 'quality' => 'podcast', 'layout' => 'mono',
        'name' => '{stem} for air'])->assertRedirect('/results?order=3');
    $result = Result::query()->sole();
    expect($result->state)->toBe(ResultState::Done)->and($result->name)->toBe('clip for air.mp3')
        ->and($result->receipt['samples'])->toBe(9600)
        ->and($result->receipt['bytes'])->toEqualWithDelta($result->predicted_bytes, 800);
    $this->get('/results?order=3')->assertOk()->assertSee('clip for air.mp3');
    $this->get("/results/$result->id/receipt")->assertOk()->assertSee('read back and decoded');
});

it('makes, plays and gives away the very file', function () {
    $source = $this->bring('clip.wav', TestCase::wave());
    $this->order(['sources' => $source->id, 'format' => 'wav', 'bits' => '24'])->assertRedirect();
    $result = Result::query()->sole();
    $download = $this->get("/results/$result->id/file")->assertOk()->assertDownload('clip.wav');
    $bytes = file_get_contents($result->path);
    expect($download->streamedContent() ?: file_get_contents($download->baseResponse->getFile()->getPathname()))->toBe($bytes)
        ->and(Comparison::of($source->path, $result->path)->identical)->toBeTrue();
    $range = $this->get("/results/$result->id/media", ['Range' => 'bytes=4-7'])->assertStatus(206)
        ->assertHeader('Content-Range', 'bytes 4-7/'.strlen($bytes));
    expect($range->headers->get('Content-Type'))->toBe('audio/wav');
    $this->get("/sources/$source->id/media", ['Range' => 'bytes=0-3'])->assertStatus(206);
});

it('offers only what the chosen format has', function () {
    $source = $this->bring('clip.wav', TestCase::wave());
    $this->sheet("/order?sources=$source->id&format=flac")->assertOk()->assertSee('24 bits')->assertDontSee('<option value="32"', false)
        ->assertDontSee('id="quality"', false);
    $this->sheet("/order?sources=$source->id&format=opus&rate=44100")->assertOk()->assertSee('Opus has only 48 kHz')
        ->assertDontSee('44.1 kHz</option>', false)->assertDontSee('As each moment needs');
    $this->sheet("/order?sources=$source->id&format=vorbis&quality=breathing")->assertOk()->assertSee('encode Vorbis, variable rate 2');
    $this->sheet("/order?sources=$source->id&format=gsm")->assertOk()->assertSee('carries 1 channel at most')->assertSee('Make 0 files');
    $this->sheet("/order?sources=$source->id&format=ac3")->assertOk()
        ->assertSee('copied untouched from a source that has it, but not made');
    $this->sheet("/order?sources=$source->id&format=mp4")->assertOk()->assertSee('There is no picture in this file');
});

it('makes every format that an order sheet offers', function (string $format, string $extension) {
    $source = $this->bring('clip.wav', TestCase::wave());
    $this->order(['sources' => $source->id, 'format' => $format,
        'layout' => in_array($format, ['gsm', 'vox'], true) ? 'mono' : ''])->assertRedirect();
    $result = Result::query()->sole();
    expect([$result->state, $result->name, $result->error_says])->toBe([ResultState::Done, 'clip.'.$extension, null]);
})->with([['aiff', 'aiff'], ['caf', 'caf'], ['flac', 'flac'], ['alac', 'm4a'], ['wavpack', 'wv'], ['aac', 'm4a'], ['opus', 'opus'],
    ['vorbis', 'ogg'], ['mp2', 'mp2'], ['ima', 'wav'], ['gsm', 'wav'], ['vox', 'vox'], ['raw', 'raw']]);

it('gives two sources of one name two results of two names', function () {
    $ids = [$this->bring('a.wav', TestCase::wave(100))->id, $this->bring('A.wav', TestCase::wave(200))->id];
    $this->order(['sources' => implode(',', $ids), 'format' => 'mp3'])->assertRedirect();
    expect(Result::query()->pluck('name')->all())->toBe(['a.mp3', 'A 2.mp3']);
});

it('keeps what is filled in in the draft and takes nonsense for the first choice', function () {
    $this->get('/order')->assertOk()->assertSee('The sheet is empty');
    $source = $this->bring('a.wav', TestCase::wave(100));
    $this->sheet("/order?sources[]=$source->id&sources[]=99&format=xyz&quality[]=1&rate=-5&bits=x&layout=sideways&existing=?")->assertOk()
        ->assertSee('Make 1 file');
    $this->order(['sources' => '99,abc'])->assertRedirect('/orders/2')->assertSessionHas('said');
    expect(Result::query()->count())->toBe(0)->and(Order::query()->findOrFail(1)->lines()->count())->toBe(1);
});

it('says of one that fails why, tries again, and finishes the others', function () {
    $good = $this->bring('good.wav', TestCase::wave(1000));
    $bad = $this->bring('bad.wav', TestCase::wave(1001));
    Queue::fake();
    $this->order(['sources' => "$bad->id,$good->id", 'format' => 'mp3']);
    $kept = file_get_contents($bad->path);
    unlink($bad->path);
    foreach (Result::query()->pluck('id') as $id) {
        app()->call([new MakeResult, 'handle']);
    }
    [$failed, $done] = Result::query()->orderBy('id')->get()->all();
    expect([$failed->state, $done->state])->toBe([ResultState::Failed, ResultState::Done])->and($failed->error_code)
        ->toBe('file-unreadable');
    $this->get('/results')->assertSee('There is no such file')->assertSee('Try again');

    file_put_contents($bad->path, $kept);
    $this->post("/results/$failed->id/retry")->assertOk()->assertSee('waiting');
    Queue::assertPushed(MakeResult::class, 3);
    app()->call([new MakeResult, 'handle']);
    expect($failed->refresh()->state)->toBe(ResultState::Done);
});

it('cancels what waits at once and what is at work as soon as its worker looks up', function () {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    $this->order(['sources' => $source->id, 'format' => 'mp3']);
    $result = Result::query()->sole();
    $this->post("/results/$result->id/cancel")->assertOk()->assertSee('cancelled')->assertSee('Try again');
    app()->call([new MakeResult, 'handle']);
    expect($result->refresh()->state)->toBe(ResultState::Cancelled)->and(is_dir($this->home.'/results/0001'))->toBeFalse();

    $result->update(['state' => ResultState::Making]);
    $this->post("/results/$result->id/cancel")->assertOk()->assertSee('cancelling');
    expect($result->refresh()->cancelling)->toBeTrue();
});

it('takes up what a dead worker left, however often, for that says nothing about the file', function () {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    $this->order(['sources' => $source->id, 'format' => 'mp3']);
    $result = Result::query()->sole();
    $dead = TestCase::goneProcess();
    mkdir($this->home.'/results/0001');
    $left = $this->home.'/results/0001/.octavox-gone.part';
    $lose = function (int $worker, int $attempts) use ($result, $left): void {
        touch($left);
        $this->hold(WorkKind::Making, $result->id, $worker);
        $result->update(['state' => ResultState::Making, 'token' => 'gone', 'attempts' => $attempts]);
        app(Recover::class)->run();
        $result->refresh();
    };
    $lose(getmypid(), 1);
    expect($result->state)->toBe(ResultState::Making)->and(is_file($left))->toBeTrue();
    $lose($dead, 1);
    expect($result->state)->toBe(ResultState::Waiting)->and(is_file($left))->toBeFalse();
    foreach (range(1, 5) as $time) {
        $lose($dead, 2);
        expect($result->state)->toBe(ResultState::Waiting)->and($result->attempts)->toBe(2)->and(is_file($left))->toBeFalse();
    }
});

it('tells a page that is open what has changed, and stops when all is done', function () {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    $this->order(['sources' => $source->id, 'format' => 'mp3']);
    $result = Result::query()->sole();
    $this->get('/results/changes?since='.now()->getTimestamp())->assertOk()->assertSee('data-open', false)->assertSee('hx-swap-oob', false);
    app()->call([new MakeResult, 'handle']);
    $this->get('/results/changes?since='.now()->getTimestamp())->assertOk()->assertSee('Download')->assertDontSee('data-open', false);
});

it('lists ten thousand sources with few queries', function () {
    $rows = array_map(fn (int $number): array => ['name' => "clip $number.mp4", 'path' => "/x/$number", 'origin' => 'shelf',
        'state' => 'ready', 'container' => 'mp4', 'bytes' => $number, 'seconds' => $number / 10, 'created_at' => now(),
        'updated_at' => now()], range(1, 10_000));
    foreach (array_chunk($rows, 500) as $part) {
        Source::query()->insert($part);
    }
    DB::enableQueryLog();
    $this->get('/sources')->assertOk()->assertSee('10,000 in all')->assertSee('clip 9999');
    expect(count(DB::getQueryLog()))->toBeLessThan(13);
    $this->get('/sources?find=clip+99&by=size')->assertOk()->assertSeeInOrder(['clip 9999.mp4', 'clip 9998.mp4'])->assertSee('111 in all');
    $this->get('/sources?find=%25')->assertOk()->assertSee('No source has');
});

it('shows plain pages when something is not there', function () {
    foreach (['/sources/77', '/results/77/file', '/nowhere'] as $address) {
        $this->get($address)->assertNotFound()->assertSee('There is nothing at this address');
    }
});
