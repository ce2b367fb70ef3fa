<?php

declare(strict_types=1);

use App\Results\Models\Result;
use App\Sources\Models\Track;
use App\Upkeep\Recover;
use Tests\TestCase;

/** Two sides of a 16-bit WAV from functions of the sample's number. */
function sides(Closure $left, Closure $right, int $frames = 96_000): string
{
    $data = '';
    for ($index = 0; $index < $frames; $index++) {
        $data .= pack('v2', (int) $left($index) & 0xFFFF, (int) $right($index) & 0xFFFF);
    }

    return 'RIFF'.pack('V', 36 + strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 2, 48000, 192000, 4, 16).'data'.pack('V',
        strlen($data)).$data;
}

it('listens to what comes in, draws its waveforms and says what it heard', function () {
    $source = $this->bring('memo.wav', sides(fn (int $at): float => 9000 * sin($at * 0.05), fn (int $at): float => 0));
    $track = Track::query()->where('source_id', $source->id)->sole();
    expect($track->measured()->levels[0]->peakDecibels())->toEqualWithDelta(-11.2, 0.05)->and($track->waveformPath())->toBeFile();
    $this->get("/sources/$source->id")->assertOk()->assertSee('The right side of track 1 is silent')->assertSee('Put the left side on both')
        ->assertSee("order?sources=$source->id&amp;layout=left-both", false)->assertSee('LUFS')->assertSee('Leave silences out');
    $this->get('/sources')->assertOk()->assertSee('Worth a look');
    $this->sheet("/order?sources=$source->id&layout=left-both")->assertOk()->assertSee('L to both sides')->assertSee('Left on both');
    $this->order(['sources' => $source->id, 'format' => 'wav', 'layout' => 'left-both'])->assertRedirect();
    $bytes = substr((string) file_get_contents((string) Result::query()->sole()->path), 44);
    $frames = unpack('s*', substr($bytes, 0, 4000));
    expect(array_filter(range(1, 999), fn (int $at): bool => $frames[2 * $at - 1] !== $frames[2 * $at]))->toBe([]);
});

it('gives waveforms in windows and sound in stretches', function () {
    $source = $this->bring('clip.wav', TestCase::wave(9600));
    $answer = $this->get("/sources/$source->id/tracks/1/waveform?from=0&until=9600&most=100")->assertOk()->assertHeader('X-Step', '512')
        ->assertHeader('X-Done', '9600');
    expect(strlen($answer->getContent()))->toBe(19 * 8);
    $sound = $this->get("/sources/$source->id/tracks/1/sound?from=1000&count=500")->assertOk();
    expect($sound->streamedContent())->toBe(substr(TestCase::wave(9600), 44 + 4000, 2000))
        ->and($this->get("/sources/$source->id/tracks/1/sound?from=9500&count=500")->streamedContent())
        ->toBe(substr(TestCase::wave(9600), 44 + 38_000))
        ->and($this->get("/sources/$source->id/tracks/1/sound?from=99999&count=500")->streamedContent())->toBe('');
    $this->get("/sources/$source->id/tracks/9/sound?from=0&count=5")->assertNotFound();
    $this->get("/sources/$source->id/tracks/1/waveform?from=-5&until=x&most=0")->assertOk();
});

it('finds silences on request', function () {
    $source = $this->bring('gaps.wav', sides(fn (int $at): float => $at > 20_480 && $at < 61_440 ? 0 : 5000 * sin($at * 0.05),
        fn (int $at): float => $at > 20_480 && $at < 61_440 ? 3 : 5000 * sin($at * 0.04)));
    $this->get("/sources/$source->id/tracks/1/silences?level=-45&least=0.5")->assertOk()->assertJson(['silences' => [[20_992, 61_440]]]);
    $this->get("/sources/$source->id/tracks/1/silences?level=-45&least=3")->assertOk()->assertExactJson(['silences' => []]);
});

it('plans pieces, labels, fades and level from the sheet, and makes exactly that', function () {
    $source = $this->bring('talk.wav', TestCase::wave(48_000));
    $query = "sources=$source->id&format=wav&layout=split&labels=lav,boom&pieces=$source->id:4800%23-9600%23,24000%23-end&level_kind=peak&level_value=-3&fade_in=0.01";
    $this->sheet("/order?$query")->assertOk()->assertSee('talk lav.wav')->assertSee('talk boom.wav')->assertSee('L to mono')
        ->assertSee('2 pieces')->assertSee('peak at -3.0 dBFS')->assertSee('fade in over 0.01 s')->assertSee('Make 2 files');
    parse_str($query, $fields);
    $this->order($fields)->assertRedirect();
    $results = Result::query()->orderBy('id')->get();
    expect($results->pluck('name')->all())->toBe(['talk lav.wav', 'talk boom.wav'])->and($results->pluck('samples')->all())
        ->toBe([28_800, 28_800])
        ->and($results[0]->receipt['level']['after']['peak_db'])->toEqualWithDelta(-3.0, 0.05);
    $this->get('/results/'.Result::query()->latest('id')->value('id').'/receipt')->assertOk()->assertSee('Level set')
        ->assertSee('true peak')->assertSee('-3.0 dBFS');
    foreach (['before', 'after'] as $side) {
        expect($this->get("/results/{$results[0]->id}/waveform/$side")->assertOk()->assertHeader('Content-Type', 'image/svg+xml')
            ->getContent())->toContain('<path d="M0 ');
    }
    $this->sheet("/order?sources=$source->id&format=wav&pieces=$source->id:9-10")->assertOk()->assertSee('but the sound ends at 0:01.000')
        ->assertSee('Make 0 files');
    $this->sheet("/order?sources=$source->id&format=wav&layout=5.1")->assertOk()->assertSee('needs 6 channels');
    $this->sheet("/order?sources=$source->id&format=wav&level=peak:9")->assertOk()->assertSee('between -60 and 0 dBFS');
});

it('cuts on borders of frames what is kept, or exactly where that is asked for', function () {
    $wave = $this->bring('long.wav', TestCase::wave(48_000));
    $this->order(['sources' => "$wave->id", 'format' => 'flac'])->assertRedirect();
    $source = $this->bring('long.flac', (string) file_get_contents(Result::query()->sole()->path));
    $piece = "/order?sources=$source->id&format=flac&pieces=$source->id:0.2-0.8";
    $this->sheet($piece)->assertOk()->assertSee('copied untouched')
        ->assertSee('on frame borders: it begins 29.3 ms early and ends 53.3 ms late');
    $this->sheet("$piece&exact=1")->assertOk()->assertSee('write 16-bit FLAC')->assertDontSee('on frame borders')
        ->assertSee('name="exact" value="1" checked', false);
    foreach ([0 => 32_768, 1 => 28_800] as $exact => $samples) {
        $this->order(['sources' => "$source->id", 'format' => 'flac', 'pieces' => "$source->id:0.2-0.8",
            'exact' => (string) $exact])->assertRedirect();
        expect(Result::query()->latest('id')->first()->samples)->toBe($samples);
    }
});

it('gives all marked sources one gain where their balance is to stay', function () {
    $loud = $this->bring('loud.wav', sides(fn (int $at): float => 16000 * sin($at * 0.05), fn (int $at): float => 16000 * sin($at * 0.05)));
    $soft = $this->bring('soft.wav', sides(fn (int $at): float => 1600 * sin($at * 0.05), fn (int $at): float => 1600 * sin($at * 0.05)));
    $this->order(['sources' => "$loud->id,$soft->id", 'format' => 'wav', 'level_kind' => 'peak', 'level_value' => '-1',
        'together' => '1'])->assertRedirect();
    $gains = Result::query()->orderBy('id')->get()->map(fn (Result $one): float => $one->receipt['level']['gain_db']);
    expect($gains[0])->toEqualWithDelta(5.23, 0.03)->and($gains[1])->toBe($gains[0]);
});

it('gives the sound of videos the one gain as well', function () {
    $source = $this->bring('video.mp4', (string) file_get_contents(dirname(__DIR__, 2).'/core/tests/fixtures/recorder.mp4'));
    $this->sheet("/order?sources=$source->id&format=mkv&sound=flac&level=peak:-1&together=1")->assertOk()
        ->assertSee(sprintf('%+.1f dB', -1.0 - $source->fresh()->soundTracks()->first()->measured()->level()->peakDecibels()))
        ->assertDontSee('peak at -1.0 dBFS,');
});

it('names those of the marked sources that the layout does not fit', function () {
    $stereo = $this->bring('two.wav', TestCase::wave(4800));
    $mono = $this->bring('one.wav', substr_replace(substr_replace(TestCase::wave(4800), pack('v', 1), 22, 2), pack('v', 2), 32, 2));
    $this->sheet("/order?sources=$stereo->id,$mono->id&format=wav&layout=swap")->assertOk()
        ->assertSee('“Swap sides” needs 2 channels, but the sound has one')->assertSee('one.wav')->assertSee('Make 1 file');
});

it('says why a track cannot be listened to, and listens again after a crash to what it has not heard', function () {
    $source = $this->bring('clip.wav', TestCase::wave());
    $track = $source->soundTracks()->sole();
    $track->update(['analysis' => null, 'analysis_findings' => null]);
    app(Recover::class)->atStart();
    expect($track->fresh()->measured())->not->toBeNull();
    $track->update(['analysis' => null, 'analysis_error' => 'Nobody here can decode it.']);
    $this->get("/sources/$source->id")->assertOk()->assertSee('Nobody here can decode it.')->assertDontSee('Leave silences out');
});

it('puts a pair of microphones beside the picture, and joins tracks into one sound', function () {
    $video = (string) file_get_contents(dirname(__DIR__, 2).'/core/tests/fixtures/recorder.mp4');
    $source = $this->bring('video.mp4', $video);
    $channels = (int) $source->soundTracks()->first()->channels;
    $this->sheet("/order?sources=$source->id&format=mkv&sound=wav&layout=split")->assertOk()
        ->assertSee($channels > 1 ? 'L to mono' : 'becomes')->assertSee('copied untouched')->assertSee('2 sound tracks: 2 × mono')
        ->assertSee('One track each');
    $this->sheet("/order?sources=$source->id&format=mkv&pieces=$source->id:0-1")->assertOk()->assertSee('cannot be cut into pieces');
    $this->sheet("/order?sources=$source->id&format=wav&track=joined")->assertOk()->assertSee('Make 1 file');
});

it('sweeps away the waveforms of what is gone, and no others', function () {
    $source = $this->bring('clip.wav', TestCase::wave());
    $own = $source->soundTracks()->sole()->waveformPath();
    foreach (['999-1.waveform', 'result-999.waveform', 'kept by hand.txt'] as $name) {
        touch(dirname($own)."/$name", time() - 3600);
    }
    touch($own, time() - 3600);
    touch(dirname($own).'/998-1.waveform');
    $this->artisan('octavox:tidy')->assertSuccessful();
    expect(array_map(basename(...), glob(dirname($own).'/*')))->toBe([basename($own), '998-1.waveform', 'kept by hand.txt']);
});
