<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Actions\CompleteUpload;
use App\Sources\Jobs\AnalyzeTrack;
use App\Sources\Jobs\ReadSource;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Models\Upload;
use App\Sources\Values\SourceState;
use App\Upkeep\Recover;
use App\Upkeep\Tidy;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Make\Journal;
use Tests\TestCase;

it('answers to its own names only', function (string $host, int $status) {
    config(['octavox.port' => 8080, 'octavox.names' => 'lift-house.example']);
    $this->get("http://$host/sources")->assertStatus($status);
})->with([['localhost:8080', 200], ['127.0.0.1:8080', 200], ['lift-house.example:8080', 200], ['elsewhere.example', 421],
    ['elsewhere.example:8080', 421], ['localhost.elsewhere.example:8080', 421], ['localhost:9999', 421]]);

it('refuses what pages of others send', function (array $headers) {
    $source = $this->bring('a.wav', TestCase::wave(100));
    $this->withHeaders($headers)->post('/orders', ['sources' => $source->id, 'format' => 'wav'])->assertForbidden();
    $this->withHeaders($headers)->delete("/sources/$source->id")->assertForbidden();
    expect(Order::query()->count())->toBe(0)->and(Source::query()->count())->toBe(1);
})->with([[['Origin' => 'http://elsewhere.example']], [['Origin' => 'null']], [['Sec-Fetch-Site' => 'cross-site']],
    [['Sec-Fetch-Site' => 'same-site']]]);

it('puts the same walls around every answer', function (string $address) {
    $source = $this->bring('a.wav', TestCase::wave(100));
    $answer = $this->get(str_replace('{source}', (string) $source->id, $address));
    expect($answer->headers->get('Content-Security-Policy'))->toContain("default-src 'none'")
        ->toContain("frame-ancestors 'none'")->not->toContain("script-src 'self' 'unsafe")
        ->and($answer->headers->get('X-Content-Type-Options'))->toBe('nosniff')->and($answer->headers->get('Referrer-Policy'))
        ->toBe('same-origin')
        ->and($answer->headers->get('Cross-Origin-Resource-Policy'))->toBe('same-origin')
        ->and($answer->headers->has('X-Powered-By'))->toBeFalse()
        ->and((string) $answer->headers->get('Cache-Control'))->not->toContain('public');
})->with(['/sources', '/order?sources={source}', '/results', '/sources/{source}/media',
    '/sources/{source}/tracks/1/waveform?from=0&until=10', '/nowhere']);

it('begins no session for what needs none', function () {
    $source = $this->bring('a.wav', TestCase::wave(100));
    expect($this->get("/sources/$source->id/media")->headers->getCookies())->toBe([])
        ->and($this->get("/sources/$source->id/tracks/1/waveform?from=0&until=10")->headers->getCookies())->toBe([]);
});

it('answers odd requests in a page of its own', function (string $method, string $address, int $status) {
    $this->bring('a.wav', TestCase::wave(100));
    $this->call($method, $address)->assertStatus($status)->assertDontSee('Stack trace')->assertDontSee('Exception');
})->with([
    ['GET', '/sources?find[]=1&by[]=2&page[]=3', 200], ['GET', '/sources?page=99999999999999999999', 200],
    ['GET', '/results?order[]=1', 200], ['GET', '/results?page=-1', 200],
    ['GET', '/results/changes?since=100000000000000000000', 200], ['GET', '/order?sources[][]=1&pieces[]=1&level[]=2', 200],
    ['GET', '/orders/1', 404], ['POST', '/orders/1/place', 404],
    ['PATCH', '/orders/1/lines/1', 404], ['GET', '/orders/x', 404],
    ['GET', '/order?sources=1&pieces=1:0-999999999999999999', 302],
    ['GET', '/sources/1?track[]=1', 200], ['GET', '/sources/1/tracks/1/sound?from=-99999999999999999999&count[]=1', 200],
    ['GET', '/sources/1/tracks/999999/waveform', 404],
    ['PUT', '/sources', 405], ['GET', '/orders', 200], ['GET', '/sources/999999999999999', 404], ['GET', '/shelves/%00', 404],
    ['GET', '/shelves/Videos?folder[]=x', 200], ['GET', '/uploads/../../etc', 404],
    ['POST', '/uploads', 412], ['GET', '/results/1/hear/1', 404],
]);

it('does not serve what became a link out of its shelf', function () {
    file_put_contents($this->home.'/shelf/video.wav', TestCase::wave(4800));
    file_put_contents($this->home.'/secret.wav', TestCase::wave(9600));
    $this->post('/shelves/Videos', ['paths' => ['video.wav']])->assertRedirect();
    $source = Source::query()->sole();
    $this->get("/sources/$source->id/media")->assertOk();
    unlink($this->home.'/shelf/video.wav');
    symlink($this->home.'/secret.wav', $this->home.'/shelf/video.wav');
    $this->get("/sources/$source->id/media")->assertNotFound();
    $this->get("/sources/$source->id/tracks/1/sound?from=0&count=100")->assertOk()->assertStreamedContent('');
    $this->order(['sources' => $source->id, 'format' => 'wav']);
    expect(Result::query()->sole())->state->toBe(ResultState::Failed)->error_says->toContain('leads out');
    $source->update(['state' => SourceState::Reading]);
    app()->call([new ReadSource, 'handle']);
    expect($source->fresh()->state)->not->toBe(SourceState::Reading);
});

it('takes thousands of ticks, and says where they cannot all have arrived', function () {
    foreach (range(1, 30) as $one) {
        file_put_contents($this->home."/shelf/$one.txt", 'Gate '.$one);
    }
    Queue::fake();
    $this->post('/shelves/Videos', ['paths' => json_encode(array_map(fn (int $one): string => "$one.txt", range(1, 30)))])
        ->assertRedirect('/sources');
    expect(Source::query()->count())->toBe(30);
    $this->post('/shelves/Videos', ['paths' => array_fill(0, 999, '1.txt')])
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, 'none was taken'));
});

it('makes one order of two presses, and another one of another draft', function () {
    $source = $this->bring('a.wav', TestCase::wave(100));
    $this->order(['sources' => $source->id, 'format' => 'wav'])->assertRedirect('/results?order=1');
    $this->post('/orders/1/place')->assertRedirect('/results?order=1');
    $this->post('/orders/1/place', ['revision' => 77])->assertRedirect('/results?order=1');
    expect(Result::query()->count())->toBe(1);
    $this->order(['sources' => $source->id, 'format' => 'wav'])->assertRedirect('/results?order=2');
    expect(Result::query()->count())->toBe(2);
});

it('counts once what goes into several files', function () {
    $source = $this->bring('a.wav', TestCase::wave(48_000));
    $this->sheet("/order?sources=$source->id&format=wav&layout=split")->assertSee('Make 2 files')->assertSee('from 192 kB of sound');
});

it('foretells what sound takes that is compressed without loss', function (string $format, float $within) {
    $source = $this->bring('a.wav', TestCase::wave(96_000));
    $this->order(['sources' => $source->id, 'format' => $format]);
    $result = Result::query()->sole();
    expect($result->predicted_bytes / filesize((string) $result->path))->toBeBetween(1 / $within, $within);
})->with([['flac', 1.25], ['alac', 1.6], ['wavpack', 1.9]]);

it('decodes here what no browser can, in ranges to the byte', function () {
    $source = $this->bring('a.wav', TestCase::wave(9600));
    $this->order(['sources' => $source->id, 'format' => 'wavpack']);
    $result = Result::query()->sole();
    $whole = $this->get("/results/$result->id/hear/1")->assertOk()->assertHeader('Content-Length', (string) (44 + 38_400))
        ->streamedContent();
    expect(substr($whole, 44))->toBe(substr((string) file_get_contents($source->path), 44));
    foreach (['0-43', '10-60', '45-45', '1000-1999', '38000-', '-7'] as $range) {
        [$from, $until] = match (true) {
            $range === '38000-' => [38_000, 38_444], $range === '-7' => [38_437, 38_444],
            default => [(int) explode('-', $range)[0], (int) explode('-', $range)[1] + 1]
        };
        $part = $this->get("/results/$result->id/hear/1", ['Range' => "bytes=$range"])->assertStatus(206)->streamedContent();
        expect($part)->toBe(substr($whole, $from, $until - $from));
    }
    $this->get("/results/$result->id/hear/1", ['Range' => 'bytes=99999-'])->assertStatus(416);
    expect(substr($this->get("/sources/$source->id/tracks/1/hear")->streamedContent(), 44))->toBe(substr($whole, 44));
    $this->get("/results/$result->id/receipt")->assertSee('Before')->assertSee('After')->assertSee("/results/$result->id/hear/1", false);
});

it('finishes an upload once, from whichever side it is asked', function () {
    Queue::fake();
    $bytes = TestCase::wave(500);
    $created = $this->call('POST', '/uploads',
        server: $this->headers(['Upload-Length' => (string) strlen($bytes), 'Upload-Metadata' => 'filename '.base64_encode('a.wav')]));
    $address = (string) $created->headers->get('Location');
    $this->call('PATCH', $address, server: $this->headers(['Upload-Offset' => '0', 'Content-Type' => 'application/offset+octet-stream']),
        content: $bytes)->assertNoContent();
    $source = Source::query()->sole();
    $upload = Upload::query()->sole();
    // Died after the file was moved and before that was written down.
    $upload->update(['source_id' => null]);
    $source->delete();
    app(Recover::class)->run();
    app(CompleteUpload::class)->complete($upload->fresh());
    expect(Source::query()->count())->toBe(1)->and(file_get_contents(Source::query()->sole()->path))->toBe($bytes);
    // What is not there any more is not made up.
    $lost = Upload::query()
        ->create(['id' => '00000000-0000-4000-8000-000000000001', 'name' => 'b.wav', 'folder' => '', 'bytes' => 50, 'received' => 50,
            'expires_at' => now()->addDay()]);
    expect(app(CompleteUpload::class)->complete($lost))->toBeNull()->and(is_file($lost->path()))->toBeFalse();
});

it('takes up whatever a process left where it died', function () {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    $this->order(['sources' => $source->id, 'format' => 'flac']);
    $result = Result::query()->sole();
    // It waits, and no job will ever come to it.
    Queue::fake();
    app(Recover::class)->run();
    app(Recover::class)->run();
    Queue::assertPushed(MakeResult::class, 1);
    // A source that is read by nobody, and a track that nobody listens to.
    DB::table('sources')->update(['state' => 'reading', 'updated_at' => now()->subMinute()]);
    Track::query()->update(['analysis' => null, 'analysis_error' => null]);
    app(Recover::class)->run();
    Queue::assertPushed(ReadSource::class, 1);
    DB::table('sources')->update(['state' => 'ready']);
    app(Recover::class)->run();
    Queue::assertPushed(AnalyzeTrack::class, 1);
});

it('knows a result that got its name before its worker died, and makes it not twice', function () {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    $this->order(['sources' => $source->id, 'format' => 'flac']);
    $result = Result::query()->sole();
    app()->call([new MakeResult, 'handle']);
    $done = $result->fresh();
    $made = ['state' => 'done', 'path' => $done->path, 'seconds' => 1.0, 'took' => 1.0, 'receipt' => $done->receipt];
    file_put_contents($done->journalPath(),
        json_encode(['device' => stat($done->path)['dev'], 'inode' => stat($done->path)['ino'], 'result' => $made]));
    $done->update(['state' => ResultState::Making, 'path' => null, 'receipt' => null]);
    app(Recover::class)->run();
    expect($result->fresh())->state->toBe(ResultState::Done)->path->toBe($made['path'])
        ->and(glob(dirname($made['path']).'/*'))->toHaveCount(1)
        ->and((new Journal($done->journalPath()))->placed($done->plannedAs()))->toBeNull();
});

it('sweeps what nobody goes on with', function () {
    Queue::fake();
    $upload = Upload::query()
        ->create(['id' => '00000000-0000-4000-8000-000000000002', 'name' => 'b.wav', 'folder' => '', 'bytes' => 50, 'received' => 10,
            'expires_at' => now()->subMinute()]);
    foreach ([$upload->path(), $upload->path().'.lock', $this->home.'/journal/77.json', $this->home.'/uploads/kept by hand.txt'] as $path) {
        touch($path, time() - 3600);
    }
    app(Tidy::class)->tidy();
    expect(Upload::query()->count())->toBe(0)->and(is_file($upload->path()))->toBeFalse()
        ->and(is_file($upload->path().'.lock'))->toBeFalse()
        ->and(is_file($this->home.'/journal/77.json'))->toBeFalse()->and(is_file($this->home.'/uploads/kept by hand.txt'))->toBeTrue();
});

it('shows one bad source on the sheet as its own sentence', function () {
    $good = $this->bring('good.wav', TestCase::wave(1000));
    $bad = $this->bring('bad.wav', TestCase::wave(1000));
    // A plan that nothing foresaw: what was read of it cannot be.
    $reading = $bad->reading;
    $reading['tracks'] = 'none';
    $bad->update(['reading' => $reading]);
    $this->sheet("/order?sources=$bad->id,$good->id&format=mp3")->assertOk()->assertSee('Make 1 file');
});

it('deletes the only copy nowhere but in the bin, where it asks, and shows what turns the direction of a name', function () {
    $source = $this->bring("gate\u{202E}3pm.wav", TestCase::wave(100));
    $this->get("/sources/$source->id")->assertSee('gate[U+202E]3pm.wav')->assertDontSee('Delete')
        ->assertSee('goes into the bin');
    $this->delete("/sources/$source->id");
    expect(is_file($source->path))->toBeTrue();
    $this->get('/bin')->assertSee('data-asks', false);
    $long = $this->bring(str_repeat('n', 240).'.wav', TestCase::wave(100));
    expect($long->path)->toEndWith('.wav')->and(strlen(basename($long->path)))->toBeLessThanOrEqual(200);
});

it('takes lists where a text belongs for no text, on every page that takes anything', function (string $method, string $address,
    int $status) {
    $order = $this->draft([], 'a.wav');
    $this->post("/orders/$order->id/place");
    $this->draft([], 'b.wav');
    $fields = array_fill_keys(['do', 'name', 'path', 'title', 'goes', 'shelf', 'folder', 'held', 'paused', 'tool', 'pattern', 'which',
        'scope', 'fields',
        'picture', 'what', 'side', 'line', 'workers', 'ring', 'on_failure', 'cover', 'broadcast', 'length_time'], ['x' => ['y']]);
    $this->call($method, $address, $fields)->assertStatus($status);
    $this->get('/standing')->assertOk();
    $this->get('/settings')->assertOk();
})->with([
    ['POST', '/settings/shelves', 302], ['POST', '/settings/shelf', 404], ['PUT', '/settings', 302], ['POST', '/standing', 302],
    ['POST', '/work', 302], ['POST', '/orders/1/work', 404], ['POST', '/results/1/work', 404], ['POST', '/orders/2/cover', 302],
    ['POST', '/orders/2/tags', 302], ['POST', '/orders/2/marks', 200], ['PATCH', '/orders/2', 200], ['PATCH', '/orders/2/lines/2', 200],
    ['PATCH', '/orders/2/alike', 200], ['POST', '/orders/2/recipe', 422], ['POST', '/results/many', 404], ['POST', '/ticks', 200],
]);
