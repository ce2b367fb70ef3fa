<?php

declare(strict_types=1);

use App\Outside\WebPages\PageChoices;
use App\Results\Models\Result;
use Illuminate\Http\UploadedFile;

/** Results of two sounds, one of which tells its title. @return list<int> */
function pageResults(mixed $test): array
{
    $one = $test->bring('Gate “march” & more.wav', $test->wave(48_000));
    $other = $test->bring('Lift waltz.wav', $test->wave(60_000));
    $test->order(['sources' => "$one->id,$other->id", 'format' => 'mp3']);

    return Result::query()->orderBy('id')->pluck('id')->all();
}

it('makes a page with a player of results, and lets it be seen before', function () {
    $ids = implode(',', pageResults($this));
    $this->post('/results/many', ['do' => 'page', 'results' => $ids])->assertRedirect('/outside/page?results='.urlencode($ids));
    $this->get('/outside/page?results='.$ids)->assertOk()->assertSee('How the page will look')->assertSee('&lt;iframe src=', false);
    $preview = $this->get('/outside/page/preview?results='.$ids)->assertOk();
    expect($preview->headers->get('Content-Security-Policy'))->toContain("default-src 'none'")->and($preview->getContent())
        ->toContain('\/results\/');
    $zip = $this->post('/outside/page', ['do' => 'archive', 'results' => $ids, 'title' => 'Steam <day>', 'accent' => '#004488', 'waveform' => '1'])
        ->assertOk()->streamedContent();
    file_put_contents($this->home.'/page.zip', $zip);
    $archive = new ZipArchive;
    $archive->open($this->home.'/page.zip');
    $names = array_map(fn (int $index): string => $archive->getNameIndex($index), range(0, $archive->numFiles - 1));
    sort($names);
    $html = (string) $archive->getFromName('Steam day.html') ?: (string) $archive->getFromName(array_values(preg_grep('/html$/',
        $names))[0]);
    expect(count($names))->toBe(3)->and($html)->toContain('<title>Steam &lt;day&gt;</title>')->toContain('#004488')
        ->and(str_replace('http://www.w3.org/2000/svg', '', $html))->not->toContain('http:')->not->toContain('https:')->not
        ->toContain('<link')->toContain('Lift%20waltz.mp3');
    // Everything that it plays lies beside it, under the very name.
    preg_match_all('/"src":"([^"]+)"/', $html, $sounds);
    foreach ($sounds[1] as $address) {
        expect($archive->getFromName(rawurldecode($address)))->not->toBeFalse();
    }
    expect(json_decode('['.implode(',', array_map(fn (string $part): string => '"'.$part.'"', $sounds[1])).']'))->toHaveCount(2);
});

it('puts the page beside its results, under a name that nothing has', function () {
    $ids = implode(',', pageResults($this));
    $folder = dirname(Result::query()->firstOrFail()->path);
    $this->post('/outside/page', ['do' => 'beside', 'results' => $ids, 'title' => 'Steam day'])->assertSessionHas('said',
        'The page lies beside its sound: '.$folder.'/Steam day.html');
    $this->post('/outside/page', ['do' => 'beside', 'results' => $ids, 'title' => 'Steam day']);
    expect(glob($folder.'/*.html'))->toBe([$folder.'/Steam day 2.html', $folder.'/Steam day.html']);
    // Results in two folders have no place beside them.
    $this->order(['sources' => (string) $this->bring('x.wav', $this->wave(4800))->id, 'format' => 'flac']);
    $this->post('/outside/page', ['do' => 'beside', 'results' => $ids.','.Result::query()->latest('id')->value('id')])
        ->assertSessionHas('said', fn (string $says): bool => str_contains($says, 'several folders'));
});

it('leaves out what browsers do not play, and takes no colour that is none', function () {
    $source = $this->bring('a.wav', $this->wave(9600));
    $this->order(['sources' => (string) $source->id, 'format' => 'aiff']);
    $this->get('/outside/page?results='.Result::query()->sole()->id)->assertOk()->assertSee('None of these is sound that browsers play');
    $this->post('/outside/page', ['results' => '1', 'do' => 'archive'])->assertRedirect('/results');
    $choices = PageChoices::of(['title' => '', 'ground' => 'red;}</style>', 'ink' => '#FFFFFF', 'accent' => ['x'], 'width' => '99999'],
        'Usual');
    expect($choices->colours)->toBe(['ground' => '#f5eee1', 'ink' => '#ffffff', 'accent' => '#6a1d4b'])->and($choices->width)->toBe(2000)
        ->and($choices->title)->toBe('Usual')->and($choices->isReadable())->toBeFalse()->and($choices->onAccent())->toBe('#ffffff')
        ->and(PageChoices::of([], 'x')->isReadable())->toBeTrue();
});

it('shows the cover that its results have, be it their own or that of the source', function () {
    $order = $this->draft(['format' => 'mp3'], 'a.wav', 'b.wav');
    $this->post("/orders/$order->id/cover", ['picture' => UploadedFile::fake()->image('cover.png', 40, 30), 'side' => 0]);
    $line = $order->lines()->orderBy('id')->firstOrFail();
    $this->post("/orders/$order->id/cover", ['line' => $line->id, 'what' => 'none']);
    $this->post("/orders/$order->id/place");
    [$bare, $with] = Result::query()->orderBy('id')->get()->all();
    $shown = function (Result ...$results): string {
        $page = $this->get('/outside/page/preview?results='.implode(',', array_map(fn (Result $one): int => $one->id, $results)))
            ->assertOk()->getContent();

        return preg_match('~<img[^>]+src="data:(image/[a-z]+);base64,([^"]+)"~', $page, $found) === 1 ? $found[1].' '.(getimagesizefromstring((string) base64_decode($found[2]))[0] ?? 0) : '';
    };
    expect($shown($with))->toBe('image/png 40')->and($shown($bare))->toBe('')->and($shown($bare, $with))->toBe('image/png 40');
    // What is made of one that has a cover has it too.
    $source = $this->bring('with cover.mp3', (string) file_get_contents((string) $with->path));
    $this->order(['sources' => (string) $source->id, 'format' => 'flac']);
    expect($shown(Result::query()->latest('id')->firstOrFail()))->toBe('image/png 40');
});
