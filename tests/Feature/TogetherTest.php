<?php

declare(strict_types=1);

use App\Results\Actions\EmptyBin;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Actions\CompleteUpload;
use App\Sources\Actions\RemoveSources;
use App\Sources\Models\Source;
use App\Sources\Models\Upload;
use Octavox\Core\Testing\DiscCellParts;
use Octavox\Core\Testing\VideoDiscWriter;
use Tests\TestCase;

/**
 * Brings files in together, in the order of their names here.
 *
 * @param  mixed  $test  of the case
 * @param  array<string, string>  $files
 */
function broughtTogether(mixed $test, array $files, string $drop = 'one', string $folder = ''): void
{
    foreach ($files as $name => $bytes) {
        $test->bring($name, $bytes, ltrim("$folder/$name", '/'), $drop);
    }
}

/** A sheet of one track in each file. */
function tracksIn(string ...$files): string
{
    return implode('', array_map(fn (int $index, string $file): string => sprintf("FILE \"%s\" %s\nTRACK %02d AUDIO\nTITLE \"Part %d\"\nINDEX 01 00:00:00\n",
        $file, str_ends_with(strtolower($file), '.bin') ? 'BINARY' : 'WAVE', $index + 1, $index + 1), array_keys($files), $files));
}

function sectorsOf(int $count, int $seed): string
{
    return implode('', array_map(fn (int $index): string => pack('v*', ...array_fill(0, 1176, ($seed + $index) & 0x7FFF)), range(0,
        $count - 1)));
}

it('reads an image by its sheet where both were brought in together, whichever came first', function (array $order) {
    $files = ['Band.bin' => sectorsOf(200, 5), 'Band.cue' => tracksIn('BAND.BIN')];
    broughtTogether($this, array_replace(array_flip($order), $files));
    $sheet = Source::query()->whereNull('belongs_to')->sole();
    expect($sheet->name)->toBe('Band.cue')->and($sheet->isReady())->toBeTrue()->and($sheet->soundTracks()->sole()->samples)->toBe(200 * 588)
        ->and($sheet->companions()->sole()->name)->toBe('Band.bin');
    $this->get('/sources')->assertSee('with Band.bin')->assertDontSee('without a header');
    $this->order(['sources' => (string) $sheet->id, 'format' => 'wav'])->assertRedirect();
    $made = (string) file_get_contents((string) Result::query()->sole()->path);
    expect(substr($made, (int) strpos($made, 'data') + 8, 200 * 2352))->toBe($files['Band.bin']);
    // Nothing was copied, and both go together.
    $paths = Source::query()->orderBy('name')->pluck('path')->all();
    expect(stat($paths[0])['nlink'])->toBe(2)->and(fileinode(dirname($paths[1]).'/Band.bin'))->toBe(fileinode($paths[0]));
    app(RemoveSources::class)->remove([$sheet->id]);
    expect(Source::query()->count())->toBe(0);
    app(EmptyBin::class)->destroy([], Source::removed()->pluck('id')->all());
    expect(array_filter($paths, file_exists(...)))->toBe([])->and(Source::everyOne()->count())->toBe(0);
})->with([[['Band.bin', 'Band.cue']], [['Band.cue', 'Band.bin']]]);

it('waits for each file that a sheet names', function () {
    broughtTogether($this, ['2.bin' => sectorsOf(30, 2), 'All.cue' => tracksIn('1.bin', '2.bin')]);
    $sheet = Source::query()->where('name', 'All.cue')->sole();
    expect($sheet->isReady())->toBeFalse()->and($sheet->error_says)->toContain('does not lie beside it');
    // What comes by itself, or from another folder, is another file.
    broughtTogether($this, ['1.bin' => sectorsOf(20, 9)], '');
    broughtTogether($this, ['1.bin' => sectorsOf(20, 9)], 'two');
    broughtTogether($this, ['1.bin' => sectorsOf(20, 9)], 'one', 'deeper');
    expect($sheet->refresh()->isReady())->toBeFalse()->and(Source::query()->whereNotNull('belongs_to')->count())->toBe(0);
    broughtTogether($this, ['1.bin' => sectorsOf(20, 1)]);
    expect($sheet->refresh()->isReady())->toBeTrue()->and($sheet->soundTracks()->sole()->samples)->toBe(50 * 588)
        ->and($sheet->companions()->count())->toBe(2);
});

it('lets a sheet stand for the one recording that it divides, and recordings of a track each for their sheet', function () {
    broughtTogether($this, ['Day.wav' => TestCase::wave(40_000, 44_100), 'Day.cue' => tracksIn('Day.wav')]);
    broughtTogether($this, ['Each.cue' => tracksIn('a.wav', 'b.wav'), 'a.wav' => TestCase::wave(30_000, 44_100), 'b.wav' => TestCase::wave(30_001, 44_100)], 'two', 'Album');
    $shown = Source::query()->with(['tracks', 'companions'])->whereNull('belongs_to')->orderBy('name')->get();
    expect($shown->pluck('name')->all())->toBe(['Day.cue', 'a.wav', 'b.wav'])->and($shown[0]->isReady())->toBeTrue()
        ->and($shown[0]->companionNames())->toBe('Day.wav')->and($shown[1]->companionNames())->toBe('Each.cue');
    $this->get('/sources/'.$shown[0]->id)->assertOk()->assertSee('beside it')->assertSee('Day.wav');
});

it('takes the folder of a video disc that was brought in as the titles it holds', function (bool $isFirst) {
    $writer = (new VideoDiscWriter('CHOIR', [[4, 0x1A0, 2, 'en', 1]]));
    foreach ([0, 50] as $seed) {
        $writer->title([new DiscCellParts(array_fill(0, 10, "\0\0\1\xB3still"), [array_map(
            fn (int $index): array => [str_repeat(pack('n', $seed + $index), 3840), 3600 * $index], range(0, 9))])]);
    }
    $files = $writer->files();
    broughtTogether($this, $isFirst ? $files : array_reverse($files), 'one', 'Choir/VIDEO_TS');
    $titles = Source::query()->with(['tracks', 'companions'])->whereNull('belongs_to')->orderBy('name')->get();
    expect($titles->pluck('state')->map->value->unique()->all())->toBe(['ready'])->and($titles->pluck('stated')->all())->toBe(['title:1',
        'title:2'])
        ->and($titles->map(fn (Source $one): ?int => $one->soundTracks()->first()?->samples)->all())->toBe([19_200, 19_200])
        ->and($titles->pluck('name')->all())->toBe(['Choir, title 1.IFO', 'Choir, title 2.IFO'])->and($titles[0]->facts()?->tags
        ->values()['album'] ?? '')->toBe('Choir');
    $this->order(['sources' => $titles->pluck('id')->join(','), 'format' => 'wav'])->assertRedirect();
    expect(Result::query()->get()->map(fn (Result $one): ResultState => $one->state)->unique()->all())->toBe([ResultState::Done]);
    $second = (string) file_get_contents((string) Result::query()->orderByDesc('id')->firstOrFail()->path);
    expect(substr($second, (int) strpos($second, 'data') + 8, 2))->toBe(pack('v', 50));
    $this->get('/sources')->assertSee('VTS_01_0.IFO');
    $all = Source::query()->pluck('id')->all();
    app(RemoveSources::class)->remove($all);
    app(EmptyBin::class)->destroy([], $all);
    expect(glob($this->home.'/sources/*'))->toBe([]);
})->with(['the first file first' => true, 'the first file last' => false]);

it('goes on where it was when it is asked once more', function () {
    broughtTogether($this, ['Band.cue' => tracksIn('Band.bin'), 'Band.bin' => sectorsOf(20, 5)]);
    foreach (Upload::query()->get() as $upload) {
        app(CompleteUpload::class)->complete($upload);
    }
    expect(Source::query()->count())->toBe(2)->and(Source::query()->whereNull('belongs_to')->sole()->isReady())->toBeTrue();
});

it('leaves nothing hidden when what stood before it goes', function () {
    broughtTogether($this, ['Band.bin' => sectorsOf(20, 5), 'Band.cue' => tracksIn('Band.bin')]);
    $sheet = Source::query()->whereNull('belongs_to')->sole();
    $remove = app(RemoveSources::class);
    // Into the bin after its results were verified, and back.
    expect($remove->bin($sheet))->toBeTrue()->and(Source::query()->count())->toBe(0)
        ->and($remove->putBack([$sheet->id]))->toBe(1)->and(Source::query()->count())->toBe(2);
    $remove->bin($sheet->refresh());
    app(EmptyBin::class)->destroy([], [$sheet->id]);
    $image = Source::removed()->sole();
    $remove->putBack([$image->id]);
    expect($image->refresh()->belongs_to)->toBeNull()->and($image->path)->toBeFile();
    $this->get('/sources')->assertSee('Band.bin');
});

it('knows discs of the same words apart by what they hold, and one that came twice', function () {
    $text = tracksIn('disc.bin');
    broughtTogether($this, ['disc.cue' => $text, 'disc.bin' => sectorsOf(40, 1)], 'one', 'First');
    broughtTogether($this, ['disc.cue' => $text, 'disc.bin' => sectorsOf(40, 2)], 'two', 'Second');
    broughtTogether($this, ['disc.bin' => sectorsOf(40, 1), 'disc.cue' => $text], 'three', 'Again');
    $sheets = Source::query()->where('name', 'disc.cue')->orderBy('id')->get();
    expect($sheets->map(fn (Source $one): ?string => $one->error_code)->all())->toBe([null, null, 'same-content'])
        ->and($sheets[0]->bytes)->toBe(strlen($text) + 40 * 2352)->and($sheets[2]->error_says)->toContain('disc.cue');
    // Titles, too, are known by what they hold: the tables of two discs of one recorder are the same.
    $disc = fn (int $seed): array => (new VideoDiscWriter('CHOIR', [[4, 0x1A0, 2, 'en', 1]]))->title([new DiscCellParts(array_fill(0, 10,
        "\0\0\1\xB3still"), [array_map(
            fn (int $index): array => [str_repeat(pack('n', $seed + $index), 3840), 3600 * $index], range(0, 9))])])->files();
    expect($disc(1)['VIDEO_TS.IFO'])->toBe($disc(2)['VIDEO_TS.IFO']);
    foreach ([1, 2, 1] as $index => $seed) {
        broughtTogether($this, $disc($seed), "disc $index", "Disc $index/VIDEO_TS");
    }
    $discs = Source::query()->where('path', 'like', '%/VIDEO_TS.IFO')->orderBy('id')->get();
    expect($discs->map(fn (Source $one): array => [$one->name, $one->error_code])->all())
        ->toBe([['Disc 0, title 1.IFO', null], ['Disc 1, title 1.IFO', null], ['VIDEO_TS.IFO', 'same-content']]);
});

it('notices that the image behind a sheet was changed', function () {
    $folder = $this->home.'/shelf/disc';
    mkdir($folder);
    file_put_contents("$folder/Band.bin", sectorsOf(40, 1));
    file_put_contents("$folder/Band.cue", tracksIn('Band.bin'));
    $this->post('/shelves/Videos', ['paths' => json_encode(['disc'])]);
    $sheet = Source::query()->sole();
    file_put_contents("$folder/Band.bin", sectorsOf(41, 1));
    $this->order(['sources' => (string) $sheet->id, 'format' => 'wav']);
    expect(Result::query()->sole())->state->toBe(ResultState::Failed)->error_code->toBe('source-changed');
});

it('knows files by the names that a sheet has for them, though they are called otherwise here', function () {
    $this->bring('Who: what?.bin', sectorsOf(30, 4), 'Who: what?.bin', 'one');
    $sheet = $this->bring('Who: what?.cue', tracksIn('Who: what?.bin'), 'Who: what?.cue', 'one');
    expect($sheet->refresh()->isReady())->toBeTrue()->and($sheet->soundTracks()->sole()->samples)->toBe(30 * 588)
        ->and(basename($sheet->path))->not->toBe('Who: what?.cue')->and($sheet->companions()->count())->toBe(1);
});
