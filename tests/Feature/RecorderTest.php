<?php

declare(strict_types=1);

use App\Models\CopiedFolder;
use App\Models\Source;
use App\Outside\Recorders\RecordedName;

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
    plug($this, 'Field recorder', ['FOLDER01/260509_1403.wav' => $this->wave(4800), 'FOLDER01/readme.txt' => 'x', 'Gate.wav' => $this->wave(4900)]);
    plug($this, 'Camera', ['DCIM/20260510_091500.wav' => $this->wave(5000)]);
    $this->get('/outside')->assertSee('Camera, Field recorder');
    $page = $this->get('/outside/recorders')->assertOk()->assertSee('Field recorder')->assertSee('Camera');
    expect(substr_count($page->getContent(), 'Copy in what is new on'))->toBe(2);
    $this->post('/outside/recorders', ['recorder' => 'Field recorder'])->assertRedirect('/outside/recorders');
    $sources = Source::query()->orderBy('path')->get()->keyBy('name');
    expect($sources->keys()->sort()->values()->all())->toBe(['260509_1403.wav', 'Gate.wav']);
    $taken = $sources['260509_1403.wav'];
    expect($taken->given_name)->toBe('2026-05-09 14.03.00 Field recorder')->and($taken->came_from)->toBe('Field recorder/FOLDER01/260509_1403.wav')
        ->and($taken->sha256)->toBe(hash('sha256', $this->wave(4800)))->and(filemtime($taken->path))->toBe(strtotime('2026-05-09 14:03:22'))
        ->and($sources['Gate.wav']->given_name)->toBe('');
    // A second visit brings only what is new, and the recorder is as it was.
    plug($this, 'Field recorder', ['FOLDER01/260509_1500.wav' => $this->wave(5100)]);
    $this->get('/outside/recorders')->assertSee('2 files copied and read again; 2 new sources.');
    $this->post('/outside/recorders', ['recorder' => 'Field recorder']);
    expect(Source::query()->count())->toBe(3)->and(CopiedFolder::query()->sole()->says)->toBe('3 files copied and read again; 1 new source.')
        ->and(file_get_contents($this->home.'/recorders/Field recorder/Gate.wav'))->toBe($this->wave(4900));
    $this->get('/outside/recorders')->assertSee('it can be pulled out');
});

it('loses nothing where a recorder is pulled out, and stays within it', function () {
    plug($this, 'Field recorder', ['a.wav' => $this->wave(4800), 'b.wav' => $this->wave(4900)]);
    symlink('/etc', $this->home.'/recorders/Elsewhere');
    chmod($this->home.'/recorders/Field recorder/b.wav', 0);
    $this->post('/outside/recorders', ['recorder' => 'Elsewhere'])->assertSessionHas('said', 'This recorder is not plugged in any more; nothing was lost.');
    foreach (['', '..', '../..', 'a/b', "a\0b", '.hidden'] as $name) {
        $this->post('/outside/recorders', ['recorder' => $name])->assertSessionHas('said', 'This recorder is not plugged in any more; nothing was lost.');
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
    App\Jobs\CopyFolderIn::dispatch($copied->id);
    expect($copied->refresh()->state)->toBe(CopiedFolder::FAILED)->and(Source::query()->count())->toBe(1)
        ->and(is_file(Source::query()->sole()->path))->toBeTrue();
});

it('understands the names of recorders', function (string $name, ?string $moment) {
    expect(RecordedName::moment($name)?->format('Y-m-d H:i:s'))->toBe($moment);
})->with([
    ['260509_1403.wav', '2026-05-09 14:03:00'], ['20260509_140322.WAV', '2026-05-09 14:03:22'], ['REC-2026-05-09-14-03-22.m4a', '2026-05-09 14:03:22'],
    ['R_20260509-140322.MP3', '2026-05-09 14:03:22'], ['2026-05-09 14.03.22.wav', '2026-05-09 14:03:22'], ['20260509140322.wav', '2026-05-09 14:03:22'],
    ['ZZ0001.wav', null], ['261399_9999.wav', null], ['20261350_140322.wav', null], ['Gate three.wav', null], ['123456789012345.wav', null],
    ['260509_140322_tr1.wav', '2026-05-09 14:03:22'],
]);
