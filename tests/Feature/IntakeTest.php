<?php

declare(strict_types=1);

use App\Files\CopyFailed;
use App\Files\PlainName;
use App\Results\Actions\CopySafely;
use App\Results\Models\Result;
use App\Sources\Actions\RemoveSources;
use App\Sources\Jobs\CopyFolderIn;
use App\Sources\Models\CopiedFolder;
use App\Sources\Models\Source;
use App\Upkeep\Recover;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Tests\Support\Signal;
use Tests\TestCase;

/** A recorder's card on the shelf: two cut recordings, one by itself, and what is no recording. */
function card(mixed $test): string
{
    $folder = $test->home.'/shelf/card/0412';
    mkdir($folder, recursive: true);
    foreach ([['T1_1', 96_000, 1010], ['T1_2', 96_000, 1012], ['T1_3', 9600, 1012], ['T2', 4800, 2000]] as [$name, $frames, $closed]) {
        file_put_contents("$folder/$name.wav", TestCase::wave($frames));
        touch("$folder/$name.wav", 1_700_000_000 + $closed);
    }
    file_put_contents("$folder/settings.ini", 'gain=3');

    return $folder;
}

it('copies a card in with dates and sums, and makes one of the files of one recording', function () {
    $folder = card($this);
    $before = array_map(fn (string $path): string => hash_file('sha256', $path), glob("$folder/*"));
    $this->post('/shelves/Videos/copy', ['folder' => 'card/0412'])->assertRedirect('/sources');
    expect(CopiedFolder::query()->sole()->state)->toBe('done', CopiedFolder::query()->sole()->says)
        ->and(array_map(fn (string $path): string => hash_file('sha256', $path), glob("$folder/*")))->toBe($before);
    [$joined, $single] = Source::query()->orderBy('id')->get()->all();
    expect($joined->tracks()->sole()->samples)->toBe(201_600)->and(filemtime($joined->path))->toBe(1_700_001_010)
        ->and($joined->sha256)->toBe(hash_file('sha256', $joined->path))->and($joined->note)->toContain('One recording of 3 files')
        ->and($single->sha256)->toBe(hash_file('sha256', "$folder/T2.wav"))->and(filemtime($single->path))->toBe(1_700_002_000)
        ->and($joined->group()->sole()->title)->toBe('0412');
    $data = implode('', array_map(fn (string $name): string => substr((string) file_get_contents("$folder/$name.wav"), 44), ['T1_1',
        'T1_2', 'T1_3']));
    $whole = (string) file_get_contents($joined->path);
    expect(substr($whole, strpos($whole, 'data') + 8, strlen($data)))->toBe($data);
    $this->get('/sources')->assertSee('4 files copied and read again; 2 new sources.');
    $this->get("/sources/$single->id")->assertSee($single->sha256)->assertSee('copied from Videos/card/0412/T2.wav');
    // A second visit brings only what is new.
    file_put_contents("$folder/T3.wav", TestCase::wave(5000));
    $this->post('/shelves/Videos/copy', ['folder' => 'card/0412']);
    expect(Source::query()->count())->toBe(3)->and(CopiedFolder::query()->sole()->says)
        ->toBe('1 file copied and read again, 4 files compared; 1 new source.');
    $this->delete("/sources/$joined->id");
    $this->post('/bin', ['do' => 'destroy', 'sources' => [$joined->id]]);
    expect(is_file($joined->path))->toBeFalse()->and(glob("$folder/*.wav"))->toHaveCount(5);
});

it('says so when a card is pulled out, and goes on when it is back', function () {
    $folder = card($this);
    Queue::fake([CopyFolderIn::class]);
    $this->post('/shelves/Videos/copy', ['folder' => 'card/0412']);
    rename(dirname($folder), dirname($folder).'-away');
    $copied = CopiedFolder::query()->sole();
    app()->call([new CopyFolderIn, 'handle']);
    expect($copied->refresh()->state)->toBe('failed');
    $this->get('/sources')->assertSee('cannot be read')->assertSee('Go on');
    rename(dirname($folder).'-away', dirname($folder));
    $this->post('/shelves/Videos/copy', ['folder' => 'card/0412']);
    app()->call([new CopyFolderIn, 'handle']);
    expect($copied->refresh()->state)->toBe('done')->and(Source::query()->count())->toBe(2);
    // One whose worker died is begun again.
    $copied->update(['state' => 'copying', 'updated_at' => now()->subMinute()]);
    Queue::fake([CopyFolderIn::class]);
    app(Recover::class)->run();
    Queue::assertPushed(CopyFolderIn::class, 1);
    $this->post('/shelves/Videos/copy', ['folder' => 'nowhere'])->assertNotFound();
});

it('makes one source of the folder of a call, by its best sound, with what was written', function () {
    $folder = $this->home.'/shelf/2026-05-09 Lift meeting';
    mkdir($folder);
    require_once dirname(__DIR__, 2).'/core/tests/Support/Signal.php';
    file_put_contents("$folder/video1418.mp4", Signal::movie([Signal::pictureTrack(50), Signal::aacTrack([Signal::sweep(96_000)])]));
    file_put_contents("$folder/audio1418.wav", TestCase::wave(96_000));
    file_put_contents("$folder/chat.txt", "18:02 Keeper: the gate is open\n18:03 Guide: coming");
    $this->post('/shelves/Videos', ['paths' => json_encode(['2026-05-09 Lift meeting'])]);
    $leader = Source::query()->whereNull('belongs_to')->sole();
    expect($leader->name)->toBe('audio1418.wav')->and($leader->note)->toContain('the gate is open')
        ->and($leader->companions()->pluck('name')->all())->toBe(['video1418.mp4']);
    $this->get('/sources')->assertSee('with video1418.mp4')->assertSee('give it a name');
    $this->get("/sources/$leader->id")->assertSee('Its name says nothing')->assertSee('value="2026-05-09 Lift meeting"', false);
    $this->patch("/sources/$leader->id", ['name' => '2026-05-09 Lift meeting']);
    $this->get("/sources/$leader->id")->assertDontSee('Its name says nothing')->assertSee('video1418.mp4');
    // What it is called now stands everywhere.
    $this->get('/sources')->assertSee('aria-label="Choose 2026-05-09 Lift meeting"', false);
    $this->get("/sources/$leader->id")->assertSee('<title>2026-05-09 Lift meeting', false)->assertDontSee('Waveforms of audio1418');
    $this->sheet("/order?sources=$leader->id&format=mp3")->assertSee('Mark 2026-05-09 Lift meeting')->assertDontSee('>audio1418.wav<',
        false);
    $this->order(['sources' => $leader->id, 'format' => 'mp3'])->assertRedirect();
    expect(Result::query()->sole()->name)->toBe('2026-05-09 Lift meeting.mp3');
    $this->get('/results')->assertSee('from 2026-05-09 Lift meeting')->assertDontSee('audio1418');
    $this->delete("/sources/$leader->id");
    expect(Source::query()->count())->toBe(0);
    $this->post('/sources/back', ['sources' => (string) $leader->id]);
    expect(Source::query()->count())->toBe(2);
});

it('makes one source of a call that was dropped as a folder, in whichever order its files arrive', function (array $order) {
    require_once dirname(__DIR__, 2).'/core/tests/Support/Signal.php';
    $files = ['video1.mp4' => Signal::movie([Signal::pictureTrack(50), Signal::aacTrack([Signal::sweep(96_000)])]),
        'audio_only.wav' => TestCase::wave(96_000), 'chat.txt' => "18:02 Keeper: the gate is open\n"];
    foreach ($order as $name) {
        $created = $this->call('POST', '/uploads', server: $this->transformHeadersToServerVars(['Tus-Resumable' => '1.0.0',
            'Upload-Length' => (string) strlen($files[$name]), 'Upload-Metadata' => 'filename '.base64_encode($name).',path '
            .base64_encode("Lift call/$name").',drop '.base64_encode('one')]));
        $this->call('PATCH', (string) $created->headers->get('Location'), server: $this->transformHeadersToServerVars(['Tus-Resumable' => '1.0.0',
            'Upload-Offset' => '0', 'Content-Type' => 'application/offset+octet-stream']), content: $files[$name])->assertNoContent();
    }
    $leader = Source::query()->whereNull('belongs_to')->sole();
    expect($leader->name)->toBe('audio_only.wav')->and($leader->note)->toContain('the gate is open')->and($leader->companions()->count())
        ->toBe(2);
})->with([[['video1.mp4', 'audio_only.wav', 'chat.txt']], [['chat.txt', 'audio_only.wav', 'video1.mp4']]]);

it('leaves files that only lie beside each other for themselves', function () {
    $folder = $this->home.'/shelf/day';
    mkdir($folder);
    require_once dirname(__DIR__, 2).'/core/tests/Support/Signal.php';
    file_put_contents("$folder/tour.mp4", Signal::movie([Signal::pictureTrack(50), Signal::aacTrack([Signal::sweep(96_000)])]));
    file_put_contents("$folder/song.wav", TestCase::wave(960_000));
    $this->post('/shelves/Videos', ['paths' => json_encode(['day'])]);
    expect(Source::query()->whereNull('belongs_to')->count())->toBe(2);
});

it('knows names that say nothing', function (string $name, bool $isPlain) {
    expect(PlainName::saysNothing($name))->toBe($isPlain);
})->with([['video1418239.mp4', true], ['Audio Only.m4a', true], ['REC0012.WAV', true], ['20260509_180211.m4a', true], ['untitled.wav',
    true],
    ['Lift hall.wav', false], ['keeper 3.mp3', false], ['Große Halle.wav', false], ['recorder.wav', false]]);

it('asks once for a name, and not again where it is to stay', function () {
    $source = $this->bring('audio7.wav', TestCase::wave());
    $this->get("/sources/$source->id")->assertSee('Its name says nothing');
    $this->patch("/sources/$source->id", ['name' => 'audio7.wav']);
    $this->get("/sources/$source->id")->assertDontSee('Its name says nothing');
});

it('takes a disc image by its sheet, and makes a file of each track', function () {
    $folder = $this->home.'/shelf/disc';
    mkdir($folder);
    $image = substr(TestCase::wave(44_100 * 6, 44_100), 44);
    file_put_contents("$folder/Band.bin", $image);
    file_put_contents("$folder/Band.cue",
        "PERFORMER \"Wrenfield Brass\"\nTITLE \"Steam day\"\nFILE \"Band.bin\" BINARY\nTRACK 01 AUDIO\nTITLE \"Gate march\"\n"
        ."INDEX 01 00:00:00\nTRACK 02 AUDIO\nTITLE \"Lift waltz\"\nINDEX 01 00:02:30\n");
    $this->post('/shelves/Videos', ['paths' => json_encode(['disc'])])->assertRedirect('/sources');
    $source = Source::query()->sole();
    expect($source->container)->toBe('cue')->and($source->tracks()->sole()->measured())->not->toBeNull();
    $this->get("/sources/$source->id")->assertOk()->assertSee('Lift waltz')->assertSee('Steam day');
    $this->get("/sources/$source->id/tracks/1/hear")->assertOk();
    $this->order(['sources' => $source->id, 'format' => 'wav', 'pieces' => "$source->id:chapters", 'apart' => '1', 'name' => '{track:2} {title}'])->assertRedirect();
    expect(Result::query()->orderBy('id')->pluck('name')->all())->toBe(['01 Gate march.wav', '02 Lift waltz.wav']);
    $second = (string) file_get_contents((string) Result::query()->orderByDesc('id')->firstOrFail()->path);
    // 2 seconds and 30 sectors
    expect(substr($second, strpos($second, 'data') + 8, 9999))->toBe(substr($image, (2 * 75 + 30) * 2352, 9999));
    // Its sound is not in its own file, so that is neither copied nor moved alone.
    $result = Result::query()->firstOrFail();
    $result->order->update(['care' => 'copy']);
    expect(fn () => app(CopySafely::class)->before($result->refresh(), fn (): bool => true))->toThrow(CopyFailed::class);
    config(['octavox.writable' => 'Videos']);
    expect(app(RemoveSources::class)->bin($source))->toBeFalse();
    $alone = $this->bring('Band.cue', (string) file_get_contents("$folder/Band.cue"));
    $this->get("/sources/$alone->id")->assertSee('does not lie beside it');
});
