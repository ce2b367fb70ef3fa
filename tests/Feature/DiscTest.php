<?php

declare(strict_types=1);

use App\Results\Actions\EmptyBin;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Models\Group;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Testing\DiscCellParts;
use Octavox\Core\Testing\VideoDiscWriter;
use Tests\TestCase;

it('shows the disc in the tray, takes the titles that are ticked, and makes files of them', function () {
    $this->get('/outside')->assertOk()->assertSee('The tray is empty.');
    $this->get('/outside/drive')->assertOk()->assertSee('Put an image of a disc');
    mkdir($this->home.'/drive/tray', 0777, true);
    file_put_contents($this->home.'/drive/tray/Choir.iso', TestCase::discImage());
    $page = $this->get('/outside/drive')->assertOk()->assertSee('Choir Evening')->assertSee('Title 2')->assertSee('16-bit PCM, stereo');
    expect(substr_count($page->getContent(), 'name="titles[]"'))->toBe(2);
    $this->post('/discs', ['titles' => []])->assertRedirect();
    expect(Source::query()->count())->toBe(0);
    $this->post('/discs', ['titles' => ['1']])->assertRedirect('/sources');
    $source = Source::query()->sole();
    expect($source->name)->toBe('Choir, title 1.iso')->and($source->stated)->toBe('title:1')->and($source->isReady())->toBeTrue()
        ->and($source->soundTracks()->first()->samples)->toBe(96_000)->and($source->mayBeHeaderless())->toBeFalse();
    // What was taken is said so, and is not taken twice.
    $this->get('/outside/drive')->assertSee('taken');
    $this->post('/discs', ['titles' => ['1', '2']])->assertRedirect('/sources');
    expect(Source::query()->count())->toBe(2)->and(Group::query()->sole()->title)->toBe('Choir');
    $this->order(['sources' => (string) $source->id, 'format' => 'wav', 'pieces' => "$source->id:chapters", 'apart' => '1']);
    $results = Result::query()->orderBy('id')->get();
    expect($results->map(fn (Result $one): string => $one->state->value)->all())->toBe(['done', 'done'])
        ->and(basename($results[0]->path))->toBe('Choir, title 1 01.wav');
    $bytes = (string) file_get_contents($results[1]->path);
    expect(substr($bytes, (int) strpos($bytes, 'data') + 8, 8))->toBe(pack('v*', 2, 3, 4, 5));
    // The facts of a title are its own, and its waveform is drawn.
    $this->get('/sources/'.$source->id)->assertOk()->assertSee('Choir, title 1.iso')->assertDontSee('<video', false)
        ->assertDontSee('Without a header');
});

it('ejects a disc and takes it in again, but not while something is made from it', function () {
    mkdir($this->home.'/drive/tray', 0777, true);
    file_put_contents($this->home.'/drive/tray/Choir.iso', TestCase::discImage());
    $this->post('/discs', ['titles' => ['2']]);
    Queue::fake([MakeResult::class]);
    $this->order(['sources' => (string) Source::query()->sole()->id, 'format' => 'wav']);
    $result = Result::query()->sole();
    $this->post('/outside/drive')->assertRedirect('/outside/drive')->assertSessionHas('said',
        'Something is being made from this disc, so it stays in; cancel that, or wait until it is done.');
    $result->update(['state' => ResultState::Cancelled]);
    $this->post('/outside/drive')->assertSessionHas('said', 'The disc is out; it lies beside the drive.');
    $this->get('/outside/drive')->assertSee('The tray is empty')->assertSee('Beside the drive');
    expect(is_file($this->home.'/drive/discs/Choir/Choir.iso'))->toBeTrue();
    $this->post('/outside/drive', ['insert' => '../../key'])->assertSessionHas('said');
    $this->post('/outside/drive', ['insert' => 'Choir'])->assertSessionHas('said', 'The disc is in.');
    $this->get('/outside/drive')->assertSee('Title 1');
    $this->post('/outside/drive', ['insert' => 'Choir'])->assertSessionHas('said', 'There is a disc in the tray already; eject it first.');
});

it('says plainly what cannot be used', function () {
    mkdir($this->home.'/drive/tray', 0777, true);
    file_put_contents($this->home.'/drive/tray/Holiday.iso', random_bytes(400_000));
    $this->get('/outside/drive')->assertOk()->assertSee('Holiday')->assertSee('Eject');
    file_put_contents($this->home.'/shelf/Evening.iso', TestCase::discImage());
    $this->get('/shelves/Videos/disc?path=Nothing.iso')->assertNotFound();
    $this->get('/shelves/Videos/disc?path=../key')->assertNotFound();
    $this->get('/shelves/Videos/disc?path=Evening.iso')->assertOk()->assertSee('Title 1');
    $this->get('/shelves/Videos')->assertSee('look into this disc');
});

it('takes nothing of what is no disc, or another than the one that was looked at', function () {
    $tray = $this->home.'/drive/tray';
    mkdir($tray.'/Holiday', 0777, true);
    file_put_contents($tray.'/Holiday/a.wav', $this->wave(4800));
    $this->get('/outside/drive')->assertOk()->assertSee('Holiday')->assertSee('This is a folder')->assertSee('Eject');
    foreach ([['titles' => ['1']], ['audio' => '1']] as $asked) {
        $this->post('/discs', $asked)->assertRedirect()->assertSessionHas('said', fn (string $said): bool => str_contains($said,
            'This is a folder'));
    }
    $this->post('/outside/drive')->assertSessionHas('said', 'The disc is out; it lies beside the drive.');
    file_put_contents($tray.'/Choir.iso', TestCase::discImage());
    foreach ([['titles' => ['1', '3']], ['titles' => ['99999999999']], ['audio' => '1']] as $asked) {
        $this->post('/discs', $asked)->assertSessionHas('said', 'This is another disc now, so nothing was taken; look again.');
    }
    $this->post('/discs', ['titles' => ['x']])->assertSessionHas('said', 'Nothing was ticked, so nothing was taken.');
    expect(Source::query()->count())->toBe(0);
    $this->post('/discs', ['titles' => ['1', '2']])->assertRedirect('/sources');
    expect(Source::query()->count())->toBe(2);
});

it('takes every title of an image that is uploaded, and keeps the image as long as one of them is there', function () {
    $this->bring('Choir.iso', TestCase::discImage());
    $sources = Source::query()->orderBy('id')->get();
    expect($sources->map(fn (Source $one): array => [$one->name, $one->stated, $one->isReady()])->all())
        ->toBe([['Choir, title 1.iso', 'title:1', true], ['Choir, title 2.iso', 'title:2', true]])
        ->and($sources[0]->path)->toBe($sources[1]->path);
    // The same image once more is known, and is not kept.
    $again = $this->bring('Other.iso', TestCase::discImage());
    expect($again->error_code)->toBe('same-content')->and(Source::query()->count())->toBe(3)->and(is_file($again->path))->toBeFalse();
    $this->delete('/sources/'.$sources[0]->id);
    app(EmptyBin::class)->all();
    expect(is_file($sources[1]->path))->toBeTrue();
    $this->delete('/sources/'.$sources[1]->id);
    app(EmptyBin::class)->all();
    expect(is_file($sources[1]->path))->toBeFalse();
});

it('takes a disc that was copied as a folder as one thing', function () {
    $folder = $this->home.'/shelf/Old disc';
    (new VideoDiscWriter('OLD', [[4, 0x1A0, 2, 'en', 1]]))->title([new DiscCellParts(array_fill(0, 30, "\0\0\1\xB3still"),
        [[[str_repeat("\1\2\3\4", 30 * 1920), 0]]])])->folder($folder);
    $this->post('/shelves/Videos', ['paths' => ['Old disc']])->assertRedirect('/sources');
    $source = Source::query()->sole();
    expect($source->name)->toBe('Old disc, title 1.IFO')->and($source->soundTracks()->first()->samples)->toBe(57_600);
    // Taking it once more changes nothing, and a title is never moved away from its disc.
    $this->post('/shelves/Videos', ['paths' => ['Old disc']]);
    expect(Source::query()->count())->toBe(1)->and($source->refresh()->isReady())->toBeTrue();
});

it('takes an audio disc whole, makes files of its tracks, and gives them out as a disc again', function () {
    mkdir($this->home.'/drive/tray', 0777, true);
    $sound = pack('v*', ...array_map(fn (int $index): int => $index * 7 & 0xFFFF, range(0, 300 * 1176 - 1)));
    file_put_contents($this->home.'/drive/tray/Band.bin', $sound);
    file_put_contents($this->home.'/drive/tray/Band.cue', "TITLE \"Steam day\"\nPERFORMER \"Wrenfield Brass\"\nFILE \"Band.bin\" BINARY\n"
        ."TRACK 01 AUDIO\nTITLE \"Gate march\"\nISRC ZZWRN2600001\nINDEX 01 00:00:00\nTRACK 02 AUDIO\nFLAGS PRE\nTITLE \"Lift waltz\"\n"
        ."INDEX 00 00:01:00\nINDEX 01 00:02:00\n");
    $this->get('/outside/drive')->assertOk()->assertSee('Steam day')->assertSee('Audio disc, Wrenfield Brass')->assertSee('ZZWRN2600001')
        ->assertSee('pre-emphasis')->assertSee('a gap follows');
    $this->post('/discs', ['audio' => '1'])->assertRedirect('/sources');
    $source = Source::query()->sole();
    expect($source->origin)->toBe('drive')->and($source->soundTracks()->first()->samples)->toBe(300 * 588);
    $this->get("/sources/$source->id")->assertSee('recorded with pre-emphasis');
    $this->order(['sources' => (string) $source->id, 'format' => 'wav', 'pieces' => "$source->id:chapters", 'apart' => '1',
        'name' => '{track:2} {title}']);
    $results = Result::query()->orderBy('id')->get();
    expect($results->map(fn (Result $one): string => basename($one->path))->all())->toBe(['01 Gate march.wav', '02 Lift waltz.wav']);
    $zip = $this->post('/results/many', ['do' => 'disc', 'results' => $results->pluck('id')->join(',')])->assertOk()->streamedContent();
    file_put_contents($this->home.'/disc.zip', $zip);
    $archive = new ZipArchive;
    expect($archive->open($this->home.'/disc.zip'))->toBeTrue();
    $sheet = (string) $archive->getFromName('Audio disc.cue');
    expect($sheet)->toContain('FILE "01 Gate march.wav" WAVE')->toContain('TITLE "Lift waltz"')->toContain('ISRC ZZWRN2600001')
        ->and(strlen((string) $archive->getFromName('02 Lift waltz.wav')))->toBeGreaterThan(150 * 2352);
    $one = $this->bring('other.wav', $this->wave(4800));
    $this->order(['sources' => (string) $one->id, 'format' => 'wav']);
    $this->post('/results/many', ['do' => 'disc', 'results' => (string) Result::query()->latest('id')->value('id')])
        ->assertSessionHas('said', fn (string $says): bool => str_contains($says, 'not as an audio disc takes it'));
});
