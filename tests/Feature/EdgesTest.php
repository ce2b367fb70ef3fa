<?php

declare(strict_types=1);

use App\Database\RetryWrite;
use App\Processes\FileLock;
use App\Results\Actions\EndResult;
use App\Results\Jobs\DrawResult;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Jobs\AnalyzeTrack;
use App\Sources\Jobs\FindBorders;
use App\Sources\Models\PacketBordersRow;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Models\Upload;
use App\Upkeep\Recover;
use App\Upkeep\Tidy;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Make\Interrupted;
use Tests\TestCase;

it('writes again what a busy database refused, and gives up only in the end', function () {
    $tries = 0;
    RetryWrite::write(function () use (&$tries): void {
        if (++$tries < 3) {
            throw new QueryException('sqlite', 'update', [], new RuntimeException('database is locked'));
        }
    });
    expect($tries)->toBe(3)->and(fn () => RetryWrite::write(fn () => throw new LogicException('another mistake')))
        ->toThrow(LogicException::class);
});

it('takes in all files of a shelf for the demo, once, and no folder', function () {
    foreach (['a.wav', 'b.wav'] as $name) {
        file_put_contents("$this->home/shelf/$name", TestCase::wave(100));
    }
    mkdir("$this->home/shelf/more");
    file_put_contents("$this->home/shelf/more/c.wav", TestCase::wave(100));
    foreach ([1, 2] as $time) {
        $this->artisan('octavox:load-demo', ['shelf' => 'Videos'])->assertSuccessful();
        expect(Source::query()->orderBy('name')->pluck('name')->all())->toBe(['a.wav', 'b.wav']);
    }
    $this->artisan('octavox:load-demo', ['shelf' => 'Nowhere'])->expectsOutput('There is no such shelf.')->assertFailed();
});

it('puts in order at the start what a killed process left', function () {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    foreach (['made', 'given up', 'of nobody'] as $name) {
        $this->order(['sources' => $source->id, 'format' => 'flac', 'name' => $name]);
    }
    [$made, $cancelled, $waiting] = Result::query()->orderBy('id')->get()->all();
    $made->update(['state' => ResultState::Making, 'token' => 'a', 'attempts' => 1]);
    $cancelled->update(['state' => ResultState::Making, 'token' => 'b', 'attempts' => 1, 'cancelling' => true]);
    foreach (['1-9', 'result-99', 'strange'] as $name) {
        is_dir("$this->home/waveforms") || mkdir("$this->home/waveforms");
        touch("$this->home/waveforms/$name.waveform", time() - 3600);
    }
    touch("$this->home/waveforms/$source->id-1.waveform.part", time() - 3600);
    $this->artisan('octavox:keep', ['--start' => true])->assertSuccessful();
    expect($made->refresh()->state)->toBe(ResultState::Waiting)->and($cancelled->refresh()->state)->toBe(ResultState::Cancelled)
        ->and($waiting->refresh()->state)->toBe(ResultState::Waiting)
        ->and(array_map(basename(...), glob("$this->home/waveforms/*") ?: []))->not->toContain('result-99.waveform')
        ->toContain('strange.waveform')
        ->not->toContain("$source->id-1.waveform.part");
    Queue::assertPushed(MakeResult::class);
});

it('begins a drawing again whose worker was killed, and none that is being drawn', function () {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    $this->order(['sources' => $source->id, 'format' => 'flac']);
    $result = Result::query()->sole();
    unlink($result->waveformPath());
    touch($part = $result->waveformPath().'.part');
    Queue::fake();
    $lock = FileLock::take("drawing-$result->id");
    app(Recover::class)->run();
    expect(is_file($part))->toBeTrue();
    Queue::assertNotPushed(DrawResult::class);
    $lock?->release();
    app(Recover::class)->run();
    expect(is_file($part))->toBeFalse();
    Queue::assertPushed(DrawResult::class, 1);
});

it('begins again what was interrupted, a few times, and then says so', function () {
    $source = $this->bring('a.wav', TestCase::wave(1000));
    Queue::fake();
    $this->order(['sources' => $source->id, 'format' => 'flac']);
    $result = Result::query()->sole();
    $end = app(EndResult::class);
    foreach (range(1, (int) config('octavox.attempts')) as $attempt) {
        $result->update(['state' => ResultState::Making, 'token' => 't']);
        $end->interrupted($result, Interrupted::now('/a.wav'), isOfItself: true);
        expect($result->refresh()->state)->toBe($attempt < config('octavox.attempts') ? ResultState::Waiting : ResultState::Failed);
    }
    expect($result->error_says)->toContain('was interrupted '.config('octavox.attempts').' times');
    // Stopped because somebody stops everything: no try was lost.
    $result->update(['state' => ResultState::Making, 'attempts' => (int) config('octavox.attempts')]);
    $end->interrupted($result, Interrupted::now('/a.wav'), isOfItself: false);
    expect($result->refresh()->state)->toBe(ResultState::Waiting)->and($result->attempts)->toBe((int) config('octavox.attempts'));
    // A plan that nobody can read any more ends as failed when it is taken up.
    DB::table('results')->update(['plan' => '{"version":9}', 'state' => 'making']);
    app(Recover::class)->run();
    expect($result->refresh()->state)->toBe(ResultState::Failed)->and($result->error_says)->toMatch('/^[A-Z].*\.$/');
});

it('says of a track why it could not be analysed', function () {
    $source = $this->bring('a.wav', TestCase::wave(96_000));
    // A source that is gone in the meantime.
    Track::query()->whereKey($source->tracks[0]->id)->update(['analysis' => null, 'analysis_error' => null]);
    unlink($source->path);
    app()->call([new AnalyzeTrack, 'handle']);
    expect((string) $source->fresh()->tracks[0]->analysis_error)->toContain('There is no such file')
        ->and($source->fresh()->tracks[0]->isBeingAnalyzed())->toBeFalse();
    $this->get("/sources/$source->id")->assertOk()->assertSee(substr((string) $source->fresh()->tracks[0]->analysis_error, 0, 25));
});

it('looks again for packet borders that are stored in a way nobody understands', function () {
    $source = $this->bring('a.wav', TestCase::wave(96_000));
    $this->order(['sources' => $source->id, 'format' => 'mp3'])->assertRedirect();
    $mp3 = $this->bring('a.mp3', (string) file_get_contents(Result::query()->sole()->plannedAs()->path()));
    Queue::fake();
    $address = "/order?sources=$mp3->id&format=mp3&pieces=$mp3->id:0.5-1.5";
    $this->sheet($address)->assertOk()->assertSee('Make 0 files');
    app()->call([new FindBorders, 'handle']);
    $this->sheet($address)->assertOk()->assertSee('Make 1 file');
    PacketBordersRow::query()->sole()->update(['borders' => ['version' => 99]]);
    $this->sheet($address)->assertOk()->assertSee('Make 0 files');
    Queue::assertPushed(FindBorders::class, 2);
    // The source itself cannot be read any more.
    rename($mp3->path, "$mp3->path.gone");
    app()->call([new FindBorders, 'handle']);
    $this->sheet($address)->assertOk()->assertSee('Make 0 files')->assertDontSee('hx-trigger="load delay:900ms"', false);
});

it('refuses parts of an upload that it cannot take, and keeps what it has', function () {
    $bytes = TestCase::wave(1000);
    $created = $this->call('POST', '/uploads', server: $this->headers(['Upload-Length' => (string) strlen($bytes),
        'Upload-Metadata' => 'filename '.base64_encode('a.wav')]));
    $place = (string) $created->headers->get('Location');
    $send = fn (array $headers, string $part) => $this->call('PATCH', $place, server: $this->transformHeadersToServerVars(
        $headers + ['Tus-Resumable' => '1.0.0', 'Upload-Offset' => '0',
            'Content-Type' => 'application/offset+octet-stream']), content: $part);
    $send(['Tus-Resumable' => '0.2.2'], 'abc')->assertStatus(412)->assertHeader('Tus-Version', '1.0.0');
    $send(['Content-Type' => 'text/plain'], 'abc')->assertStatus(415);
    $send(['Upload-Offset' => '7'], 'abc')->assertStatus(409);
    $send([], $bytes.'more')->assertStatus(413);
    $upload = Upload::query()->sole();
    $lock = fopen($upload->path().'.lock', 'c');
    flock($lock, LOCK_EX);
    $send([], 'abc')->assertStatus(423);
    fclose($lock);
    $send([], substr($bytes, 0, 500))->assertNoContent()->assertHeader('Upload-Offset', '500');
    expect(filesize($upload->path()))->toBe(500);
    // Somebody took the file away: this upload cannot go on.
    rename($upload->path(), $upload->path().'.away');
    $send(['Upload-Offset' => '500'], substr($bytes, 500))->assertStatus(410);
    rename($upload->path().'.away', $upload->path());
    $send(['Upload-Offset' => '500'], substr($bytes, 500))->assertNoContent();
    expect(Source::query()->sole()->name)->toBe('a.wav')->and((string) file_get_contents(Source::query()->sole()->path))->toBe($bytes);
    // All of it is there: nothing can be added, and nothing is taken in twice.
    $send(['Upload-Offset' => (string) strlen($bytes)], 'x')->assertStatus(409);
    expect(Source::query()->count())->toBe(1);
});

it('throws away what belongs to nothing, and what is not its own it leaves', function () {
    $source = $this->bring('a.wav', TestCase::wave(100));
    Queue::fake();
    $this->order(['sources' => $source->id, 'format' => 'flac']);
    $result = Result::query()->sole();
    $old = ["logs/$result->id.log" => true, 'logs/777.log' => false, "logs/source-$source->id.log" => true, 'logs/source-777.log' => false,
        'logs/notes.txt' => true,
        'journal/777.json' => false, 'journal/notes' => true, 'uploads/00000000-0000-4000-8000-000000000009' => false,
        'uploads/notes' => true];
    foreach (array_keys($old) as $name) {
        file_put_contents("$this->home/$name", 'x');
        touch("$this->home/$name", time() - 3600);
    }
    file_put_contents("$this->home/logs/778.log", 'just written');
    app(Tidy::class)->tidy();
    foreach ($old as $name => $stays) {
        expect(is_file("$this->home/$name"))->toBe($stays, $name);
    }
    expect(is_file("$this->home/logs/778.log"))->toBeTrue();
});
