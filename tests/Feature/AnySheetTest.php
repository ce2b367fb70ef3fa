<?php

declare(strict_types=1);

use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Upkeep\Recover;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Tests\TestCase;

/** What somebody may put into the address of the order sheet: mostly what its fields offer, now and then something else. */
function chanceQuery(array $sources): array
{
    $one = fn (array $of): mixed => $of[mt_rand(0, count($of) - 1)];
    $names = array_map(fn ($format): string => $format->name(), [...Outputs::all(), ...VideoOutputs::all(), ...VideoOutputs::all()]);
    shuffle($sources);
    $query = [
        'sources' => implode(',', array_slice($sources, 0, mt_rand(1, count($sources)))), 'format' => $one($names),
        'sound' => $one(['', '', 'wav', 'opus', 'flac', 'aac', 'mp3', 'x']),
        'quality' => $one(['least', 'podcast', 'music', 'breathing', 'worst']),
        'rate' => $one(['', '', '48000', '8000', '7']), 'bits' => $one(['', '16', '24', '3']),
        'track' => $one(['', 'all', 'joined', '2', 'eng', '77']),
        'layout' => $one(['asis', 'asis', 'mono', 'split', '5.1', 'swap', '1/2', '9,9', '<b>']),
        'labels' => $one(['', 'lav,boom', ',,,', '<i>']),
        'pieces' => $one(['', '',
            "{$sources[0]}:0.01-0.05", "{$sources[0]}:silences:-45:0.01", "{$sources[0]}:9-10;x:1", '::', "{$sources[0]}:end-0"]),
        'apart' => $one(['', '1']), 'exact' => $one(['', '1']), 'fade_in' => $one(['', '0.01', '99', '-1', 'soon']),
        'fade_out' => $one(['', '0.01']),
        'level_kind' => $one(['none', 'none', 'peak', 'lufs', 'rms', 'gain', 'loud']), 'level_value' => $one(['', '-3', '−16', '999', 'x']),
        'level_ceiling' => $one(['', '-1', '9']), 'together' => $one(['', '1']), 'length' => $one(['', 'sound', 'picture', 'long']),
        'name' => $one(['{stem}', '{title} {label}', '../{stem}', '', "\u{202E}x"]), 'existing' => $one(['number', 'replace', 'skip', 'x']),
        'from' => $one(['', '0', '1', '-1', '999', 'x']),
    ];
    foreach (array_keys($query) as $name) {
        if ($name !== 'sources' && $name !== 'format' && mt_rand(1, 2) === 1) {
            unset($query[$name]);
        }
    }

    return mt_rand(1, 10) === 1 ? [$one(array_keys($query)) => ['a' => ['b']]] + $query : $query;
}

it('answers whatever is asked of the sheet, in a page, and makes or refuses what is ordered in a sentence', function (int $seed) {
    mt_srand($seed);
    $ids = [$this->bring('a.wav', TestCase::wave(4800))->id, $this->bring('b.wav', TestCase::wave(4801, 44_100))->id,
        $this->bring('recorder.mp4', (string) file_get_contents(dirname(__DIR__, 2).'/core/tests/fixtures/recorder.mp4'))->id,
        $this->bring('notes.mp4', str_repeat('These are my notes. ', 40))->id];
    Queue::fake();
    for ($time = 0; $time < 40; $time++) {
        $query = chanceQuery([...$ids, 999]);
        $asked = http_build_query($query);
        $this->sheet("/order?$asked")->assertOk()->assertDontSee('made a mistake of its own')->assertDontSee('Stack trace');
        if (mt_rand(1, 4) === 1) {
            $this->order($query)->assertRedirect();
        }
    }
    $results = Result::query()->with('order')->get();
    $results->each(fn (Result $result) => $result->order->update(['priority' => mt_rand(0, 9)]) && $result->update(['turn' => mt_rand(0,
        9)]));
    for ($time = 0; $time < 6; $time++) {
        app()->call([new MakeResult, 'handle']);
    }
    $tried = Result::query()->where('state', '!=', ResultState::Waiting)->get();
    foreach ($tried as $result) {
        expect($result->state)->toBeIn([ResultState::Done, ResultState::Failed])->and($result->error_code)->not->toBe('internal')
            ->and((string) $result->error_says)->not->toContain('was read back and is not right');
    }
    expect($tried)->toHaveCount(min(6, $results->count()));
    $this->get('/results')->assertOk();
    app(Recover::class)->atStart();
    expect($results->count())->toBeGreaterThan(0);
})->with(range(1, 6));

it('answers whatever is asked of a source, its waveforms, its sound and its results', function (int $seed) {
    mt_srand($seed);
    $source = $this->bring('a.wav', TestCase::wave(9600));
    $this->order(['sources' => $source->id, 'format' => 'flac'])->assertRedirect();
    $odd = ['0', '1', '2', '-1', '99999999999999999999', 'x', '1.5', '', '%01', '%00', '9600', '4800'];
    $one = fn (): string => $odd[mt_rand(0, count($odd) - 1)];
    foreach (range(1, 60) as $time) {
        $address = [
            "/sources/$source->id/tracks/{$one()}/waveform?from={$one()}&until={$one()}&columns={$one()}",
            "/sources/$source->id/tracks/{$one()}/sound?from={$one()}&count={$one()}",
            "/sources/$source->id/tracks/{$one()}/hear", "/sources/$source->id/tracks/{$one()}/silences?level={$one()}&least={$one()}",
            "/sources/{$one()}", "/sources/{$one()}/cover", "/sources/{$one()}/media", "/results?order={$one()}", "/results/{$one()}/file",
            "/results/{$one()}/hear/{$one()}", "/results/{$one()}/waveform/after/picture", "/results/{$one()}/waveform/before",
            "/results/{$one()}/log", "/results/changes?since={$one()}", "/sources?page={$one()}&sort={$one()}&search={$one()}",
        ][mt_rand(0, 14)];
        $status = $this->get($address)->baseResponse->getStatusCode();
        expect($status)->toBeIn([200, 206, 301, 302, 404, 405, 416, 422], "$address gave $status");
    }
    expect(Source::query()->count())->toBe(1)->and(Track::query()->count())->toBe(1);
})->with(range(1, 4));
