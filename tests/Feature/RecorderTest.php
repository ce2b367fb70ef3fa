<?php

declare(strict_types=1);

use App\Files\CopyFailed;
use App\Sources\Jobs\CopyFolderIn;
use App\Sources\Models\CopiedFile;
use App\Sources\Models\CopiedFolder;
use App\Sources\Models\Source;
use App\Sources\Recorders\RecordedName;
use App\Upkeep\Recover;
use Octavox\Core\Testing\DiscCellParts;
use Octavox\Core\Testing\VideoDiscWriter;

/** Puts files on a recorder. */
function plug(mixed $test, string $recorder, array $files): void
{
    foreach ($files as $path => $bytes) {
        $full = $test->home.'/recorders/'.$recorder.'/'.$path;
        is_dir(dirname($full)) || mkdir(dirname($full), 0777, true);
        file_put_contents($full, $bytes);
        touch($full, strtotime('2026-05-09 14:03:22'));
    }
}

it('copies recorders in, each by itself, with dates, sums and names that tell the moment', function () {
    $this->get('/outside/recorders')->assertOk()->assertSee('None is plugged in.');
    plug($this, 'Field recorder', ['FOLDER01/260509_1403.wav' => $this->wave(4800), 'FOLDER01/readme.txt' => 'x', 'Gate.wav' => $this
        ->wave(4900)]);
    plug($this, 'Camera', ['DCIM/20260510_091500.wav' => $this->wave(5000)]);
    $this->get('/outside')->assertSee('Camera, Field recorder');
    $page = $this->get('/outside/recorders')->assertOk()->assertSee('Field recorder')->assertSee('Camera');
    expect(substr_count($page->getContent(), 'Copy in what is new on'))->toBe(2);
    $this->post('/outside/recorders', ['recorder' => 'Field recorder'])->assertRedirect('/outside/recorders');
    $sources = Source::query()->orderBy('path')->get()->keyBy('name');
    expect($sources->keys()->sort()->values()->all())->toBe(['260509_1403.wav', 'Gate.wav']);
    $taken = $sources['260509_1403.wav'];
    expect($taken->given_name)->toBe('2026-05-09 14.03.00 Field recorder')->and($taken->came_from)
        ->toBe('Field recorder/FOLDER01/260509_1403.wav')
        ->and($taken->sha256)->toBe(hash('sha256', $this->wave(4800)))->and(filemtime($taken->path))->toBe(strtotime('2026-05-09 14:03:22'))
        ->and($sources['Gate.wav']->given_name)->toBe('');
    // A second visit brings only what is new, and the recorder is as it was.
    plug($this, 'Field recorder', ['FOLDER01/260509_1500.wav' => $this->wave(5100)]);
    $this->get('/outside/recorders')->assertSee('2 files copied and read again; 2 new sources.');
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    expect(Source::query()->count())->toBe(3)->and(CopiedFolder::query()->sole()->says)
        ->toBe('1 file copied and read again, 2 files compared; 1 new source.')
        ->and(file_get_contents($this->home.'/recorders/Field recorder/Gate.wav'))->toBe($this->wave(4900));
    $this->get('/outside/recorders')->assertSee('it can be pulled out');
});

it('loses nothing where a recorder is pulled out, and stays within it', function () {
    plug($this, 'Field recorder', ['a.wav' => $this->wave(4800), 'b.wav' => $this->wave(4900)]);
    symlink('/etc', $this->home.'/recorders/Elsewhere');
    chmod($this->home.'/recorders/Field recorder/b.wav', 0);
    $this->post('/outside/recorders', ['recorder' => 'Elsewhere'])->assertSessionHas('said',
        'This recorder is no longer plugged in; nothing was lost.');
    foreach (['', '..', '../..', 'a/b', "a\0b", '.hidden'] as $name) {
        $this->post('/outside/recorders', ['recorder' => $name])->assertSessionHas('said',
            'This recorder is no longer plugged in; nothing was lost.');
    }
    // One file goes while it is being copied: it is told, what was copied stays, and the copy goes on later.
    unlink($this->home.'/recorders/Field recorder/b.wav');
    symlink($this->home.'/gone.wav', $this->home.'/recorders/Field recorder/b.wav');
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    expect(Source::query()->count())->toBe(1);
    unlink($this->home.'/recorders/Field recorder/b.wav');
    plug($this, 'Field recorder', ['b.wav' => $this->wave(4900)]);
    exec('rm -rf '.escapeshellarg($this->home.'/recorders/Field recorder'));
    $copied = CopiedFolder::query()->sole();
    $copied->update(['state' => CopiedFolder::COPYING]);
    CopyFolderIn::dispatch();
    expect($copied->refresh()->state)->toBe(CopiedFolder::FAILED)->and(Source::query()->count())->toBe(1)
        ->and(is_file(Source::query()->sole()->path))->toBeTrue();
});

it('copies what belongs to a sheet or a disc as well, and lays it together', function () {
    $disc = (new VideoDiscWriter('X', [[4, 0x1A0, 2, 'en', 1]]))->title([new DiscCellParts(array_fill(0, 10, "\0\0\1\xB3still"), [array_map(
        fn (int $index): array => [str_repeat(pack('n', $index), 3840), 3600 * $index], range(0, 9))])])->files();
    $image = str_repeat(pack('v*', ...range(0, 1175)), 30);
    $files = ['Band.cue' => "FILE \"Band.bin\" BINARY\nTRACK 01 AUDIO\nINDEX 01 00:00:00\n", 'Band.bin' => $image, 'notes.bin' => 'none of it',
        'Day.cue' => "FILE \"Day.wav\" WAVE\nTRACK 01 AUDIO\nINDEX 01 00:00:00\n", 'Day.wav' => $this->wave(30_000, 44_100)];
    foreach ($disc as $name => $bytes) {
        $files["Lift choir/VIDEO_TS/$name"] = $bytes;
    }
    plug($this, 'Card', $files);
    $this->post('/outside/recorders', ['recorder' => 'Card']);
    $shown = Source::query()->whereNull('belongs_to')->orderBy('name')->get();
    expect($shown->map(fn (Source $one): array => [$one->name, $one->state->value])->all())->toBe([['Band.cue', 'ready'], ['Day.cue',
        'ready'],
        ['Lift choir, title 1.IFO', 'ready']])->and($shown[2]->facts()?->tags->values()['album'] ?? '')->toBe('Lift choir')
        ->and(Source::query()->whereNotNull('belongs_to')->orderBy('name')->pluck('name')->all())->toContain('Band.bin', 'Day.wav',
            'VTS_01_1.VOB');
    // Nothing of it is new the second time.
    $before = Source::everyOne()->count();
    $this->post('/outside/recorders', ['recorder' => 'Card']);
    expect(Source::everyOne()->count())->toBe($before)->and(CopiedFolder::query()->sole()->says)->toContain('0 new sources');
});

it('skips what is on the list already, and takes everything behind it', function () {
    $this->bring('Keeper.wav', $this->wave(4800));
    plug($this, 'Field recorder', ['a.wav' => $this->wave(4800)]);
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    expect(CopiedFolder::query()->sole()->says)->toBe('1 file copied and read again; 0 new sources, 1 on the list already.')
        ->and(Source::query()->count())->toBe(1);
    plug($this, 'Field recorder', ['b.wav' => $this->wave(4900), 'c.wav' => $this->wave(5000)]);
    $this->get('/outside/recorders')->assertDontSee('it can be pulled out');
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    expect(Source::query()->orderBy('id')->pluck('name')->all())->toBe(['Keeper.wav', 'b.wav', 'c.wav']);
    $this->get('/outside/recorders')->assertSee('it can be pulled out');
    // What is forgotten for good is new again.
    $gone = Source::query()->firstWhere('name', 'b.wav');
    $this->delete("/sources/$gone->id");
    $this->get('/outside/recorders')->assertSee('it can be pulled out');
    $this->post('/bin', ['do' => 'destroy', 'sources' => [$gone->id]]);
    $this->get('/outside/recorders')->assertDontSee('it can be pulled out');
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    expect(Source::query()->orderBy('id')->pluck('name')->all())->toBe(['Keeper.wav', 'c.wav', 'b.wav']);
});

it('knows another recording under the same name, size and date by its content', function () {
    plug($this, 'Field recorder', ['ZOO1.wav' => $this->wave(4800)]);
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    $other = strrev(substr($this->wave(4800), 44));
    unlink($this->home.'/recorders/Field recorder/ZOO1.wav');
    plug($this, 'Field recorder', ['ZOO1.wav' => substr($this->wave(4800), 0, 44).$other]);
    $this->get('/outside/recorders')->assertSee('1 to compare')->assertSee('Compare the contents')->assertDontSee('it can be pulled out');
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    $sources = Source::query()->orderBy('id')->get();
    expect($sources)->toHaveCount(2)->and(hash_file('sha256', $sources[0]->path))->toBe(hash('sha256', $this->wave(4800)))
        ->and(substr((string) file_get_contents($sources[1]->path), 44))->toBe($other);
    $this->get('/outside/recorders')->assertSee('it can be pulled out');
    // The first is put back in its place: neither is copied again.
    unlink($this->home.'/recorders/Field recorder/ZOO1.wav');
    plug($this, 'Field recorder', ['ZOO1.wav' => $this->wave(4800)]);
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    expect(Source::query()->count())->toBe(2)
        ->and(CopiedFolder::query()->sole()->says)->toBe('0 files copied and read again, 1 file compared; 0 new sources.');
});

it('names what it cannot copy, and takes the rest', function () {
    plug($this, 'Field recorder', ['a.wav' => $this->wave(4800), 'b.wav' => $this->wave(4900), 'c.wav' => $this->wave(5000)]);
    CopiedFile::creating(function (CopiedFile $file): void {
        if ($file->path === 'b.wav') {
            throw CopyFailed::unreadable('b.wav');
        }
    });
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    CopiedFile::flushEventListeners();
    expect(Source::query()->pluck('name')->all())->toBe(['a.wav', 'c.wav'])->and(CopiedFolder::query()->sole()->state)->toBe('failed')
        ->and(CopiedFolder::query()->sole()->says)->toContain('2 new sources. Not taken in: b.wav. The source cannot be read');
    $this->get('/outside/recorders')->assertSee('Go on')->assertDontSee('it can be pulled out');
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    expect(Source::query()->count())->toBe(3)->and(CopiedFolder::query()->sole()->state)->toBe('done');
});

it('loses no recording that is joined, whenever its process dies', function (string $moment) {
    plug($this, 'Field recorder', ['T1.wav' => $this->wave(48_000), 'T2.wav' => $this->wave(24_000)]);
    touch($this->home.'/recorders/Field recorder/T1.wav', 1_700_001_000);
    touch($this->home.'/recorders/Field recorder/T2.wav', 1_700_001_000);
    $die = fn () => throw Octavox\Core\Parallel\Abandoned::now();
    match ($moment) {
        'while the parts are joined' => CopiedFile::updated(fn (CopiedFile $one) => $one->path === 'T2.wav' && $one->sha256 !== null
            ? $die() : null),
        'before its source is written down' => Source::creating($die),
        default => Source::created(fn () => Illuminate\Support\Facades\DB::afterCommit($die)),
    };
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    Source::flushEventListeners();
    CopiedFile::flushEventListeners();
    Source::clearBootedModels();
    $folder = CopiedFolder::query()->sole();
    $folder->update(['state' => CopiedFolder::COPYING]);
    CopyFolderIn::dispatch();
    $source = Source::query()->sole();
    $joined = (string) file_get_contents($source->path);
    expect(substr($joined, strpos($joined, 'data') + 8, 72_000 * 4))->toBe(substr($this->wave(48_000), 44).substr($this->wave(24_000), 44))
        ->and($source->sha256)->toBe(hash_file('sha256', $source->path))
        ->and(CopiedFile::query()->where('source_id', $source->id)->count())->toBe(2);
    $this->get('/outside/recorders')->assertSee('it can be pulled out');
})->with(['while the parts are joined', 'before its source is written down', 'after']);

it('adopts what a former release had joined without a source', function () {
    $own = $this->home.'/sources/'.str_repeat('a', 32);
    $part = $this->home.'/sources/'.str_repeat('b', 32);
    mkdir($own);
    mkdir($part);
    file_put_contents("$own/T1.wav", $this->wave(4800));
    file_put_contents("$part/.sha256", str_repeat('0', 64)."\n");
    file_put_contents("$part/.joined", "$own/T1.wav\n");
    app(Recover::class)->atStart();
    app(Recover::class)->atStart();
    expect(Source::query()->sole()->path)->toBe("$own/T1.wav")->and(Source::query()->sole()->tracks()->sole()->samples)->toBe(4800);
});

it('understands the names of recorders', function (string $name, ?string $moment) {
    expect(RecordedName::moment($name)?->format('Y-m-d H:i:s'))->toBe($moment);
})->with([
    ['260509_1403.wav', '2026-05-09 14:03:00'], ['20260509_140322.WAV', '2026-05-09 14:03:22'], ['REC-2026-05-09-14-03-22.m4a',
        '2026-05-09 14:03:22'],
    ['R_20260509-140322.MP3', '2026-05-09 14:03:22'], ['2026-05-09 14.03.22.wav', '2026-05-09 14:03:22'], ['20260509140322.wav',
        '2026-05-09 14:03:22'],
    ['ZZ0001.wav', null], ['261399_9999.wav', null], ['20261350_140322.wav', null], ['Gate three.wav', null], ['123456789012345.wav', null],
    ['260509_140322_tr1.wav', '2026-05-09 14:03:22'],
]);
