<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Outside\Players\PlayerBody;
use App\Outside\Players\PlayerFolders;
use App\Outside\Publishing\Episode;
use App\Outside\Publishing\Feed;
use App\Outside\Publishing\Show;
use App\Results\Models\Result;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\DB;

/** The description of a player that takes MP3. */
function description(string $folder, ?string $playlists = 'LISTS', mixed $capacity = 50_000_000): string
{
    return (string) json_encode(['version' => 1, 'body' => ['capacity_bytes' => $capacity, 'folder' => $folder, 'names' => '', 'playlists' => $playlists],
        'destination' => ['title' => 'Shed', 'note' => 'MP3.', 'accepts' => [['containers' => ['mp3'], 'codecs' => ['mp3'], 'picture' => false, 'most_channels' => 2]],
            'spec' => ['version' => 1, 'container' => 'mp3']]]);
}

/** Files with nothing in them. @param  list<string>  $paths */
function lay(string $root, array $paths): void
{
    foreach ($paths as $path) {
        is_dir(dirname($root.'/'.$path)) || mkdir(dirname($root.'/'.$path), 0777, true);
        file_put_contents($root.'/'.$path, 'x');
    }
}

/** Queries that a page takes. */
function queriesOf(Closure $page): int
{
    DB::flushQueryLog();
    DB::enableQueryLog();
    $page();

    return count(DB::getQueryLog());
}

it('lists as many files of a player as one form may tick, and takes those off at once', function () {
    $root = $this->home.'/players/Shed';
    lay($root, array_map(fn (int $number): string => sprintf('MUSIC/%02d/%d <b>&.mp3', $number % 7, $number), range(1, 620)));
    file_put_contents($root.'/player.json', description('MUSIC'));
    $page = $this->get('/outside/players')->assertOk()->assertSee('120 more are on it')->assertDontSee('<b>&.mp3', false)->getContent();
    preg_match_all('/name="files\[\]" value="([^"]+)"/', $page, $listed);
    expect($listed[1])->toHaveCount(500)->and(queriesOf(fn () => $this->get('/outside/players')))->toBeLessThan(12);
    $this->post('/outside/players/remove', ['player' => 'Shed', 'files' => array_map(html_entity_decode(...), $listed[1])])
        ->assertSessionHas('said', '500 files were taken off the player; what they were made of stays.');
    $left = $this->get('/outside/players')->assertDontSee('more are on it')->getContent();
    expect(substr_count($left, 'name="files[]"'))->toBe(120);
});

it('takes as many queries for many recorders with many files as for one', function () {
    lay($this->home.'/recorders/Recorder 00', ['a.wav']);
    // What is set is asked for once in a process.
    $this->get('/outside/recorders');
    $few = queriesOf(fn () => $this->get('/outside/recorders')->assertOk());
    foreach (range(1, 30) as $number) {
        lay(sprintf('%s/recorders/Recorder %02d', $this->home, $number), array_map(fn (int $file): string => "$file.wav", range(1, 12)));
    }
    expect(queriesOf(fn () => $this->get('/outside/recorders')->assertOk()->assertSee('Recorder 30')))->toBe($few);
});

it('knows players by names that lead nowhere else', function () {
    $folder = $this->home.'/players';
    foreach (['Shed', 'Boat – “2”', str_repeat('n', 80)] as $name) {
        mkdir($folder.'/'.$name, 0777, true);
        file_put_contents($folder.'/'.$name.'/player.json', description(''));
    }
    symlink($folder.'/Shed', $folder.'/Linked');
    mkdir($folder.'/No player');
    mkdir($folder.'/.hidden');
    file_put_contents($folder.'/.hidden/player.json', description(''));
    $players = new PlayerFolders($folder);
    expect(array_map(fn ($one): string => $one->name, $players->all()))->toBe(['Boat – “2”', 'Shed', str_repeat('n', 80)])
        ->and($players->named('Shed')?->folder())->toBe($folder.'/Shed')
        ->and($players->holding($folder.'/Shed/MUSIC/x')?->name)->toBe('Shed')
        ->and($players->holding($folder))->toBeNull()->and($players->holding('/tmp'))->toBeNull()
        ->and($players->areMeantBy($folder.'/Gone/MUSIC'))->toBeTrue()->and($players->areMeantBy($folder.'sheds/x'))->toBeFalse();
    foreach (['', '.', '..', '.hidden', 'Linked', 'No player', 'Shed/..', "Shed\0", "She\xFF", 'a:b', str_repeat('n', 81)] as $name) {
        expect($players->named($name))->toBeNull();
    }
});

it('reads of a description only what keeps within the player', function (string $folder, string $expected) {
    $body = PlayerBody::read(description($folder, $folder), 'player-shed');
    expect($body?->folder)->toBe($expected)->and($body?->playlists)->toBe($expected)->and($body?->destination->title)->toBe('Shed');
})->with([['', ''], ['MUSIC', 'MUSIC'], ['/MUSIC/', 'MUSIC'], ['../..', ''], ['a/../b/./c', 'a/b/c'], ['a\\..\\b', 'a/b'], ["a\0/b",
    'a/b']]);

it('reads capacities as they are, and knows none that is no number', function (mixed $capacity, ?int $expected) {
    expect(PlayerBody::read(description('', null, $capacity), 'player-shed')?->capacity)->toBe($expected);
})->with([[1, 1], [8_000_000_000, 8_000_000_000], [-5, 0], ['much', null], [null, null]]);

it('writes playlists that lead from where they lie to what they name', function (string $folder, ?string $playlists, ?string $list,
    array $lines) {
    $root = $this->home.'/players/Shed';
    mkdir($root, 0777, true);
    file_put_contents($root.'/player.json', description($folder, $playlists));
    $sources = [$this->bring('Gate – march.wav', $this->wave(48_000))->id, $this->bring("Lift\u{202E} waltz.wav", $this->wave(96_000))->id];
    $this->post('/outside/players', ['player' => 'Shed', 'sources' => implode(',', $sources)])->assertRedirect();
    $this->post('/orders/'.Order::query()->max('id').'/place');
    expect(Result::query()->where('state', 'done')->count())->toBe(2);
    $found = glob($root.'/{*,*/*,*/*/*}.m3u8', GLOB_BRACE);
    expect(array_map(fn (string $path): string => dirname(substr($path, strlen($root))), $found))->toBe($list === null ? [] : [$list]);
    if ($list !== null) {
        $text = (string) file_get_contents($found[0]);
        $named = array_values(array_filter(explode("\n", trim($text)), fn (string $line): bool => $line[0] !== '#'));
        expect($named)->toHaveCount(2)->and(mb_check_encoding($text, 'UTF-8'))->toBeTrue()->and($named[0])->toBe($lines[0]);
        foreach ($named as $line) {
            expect(is_file(dirname($found[0]).'/'.$line))->toBeTrue();
        }
    }
})->with([
    'beside a folder of sound' => ['MUSIC', 'LISTS', '/LISTS', ['../MUSIC/Gate – march.mp3']],
    'deep' => ['A/B', 'C/D', '/C/D', ['../../A/B/Gate – march.mp3']],
    'in the root' => ['MUSIC', '', '/', ['MUSIC/Gate – march.mp3']],
    'everything in the root' => ['', '', '/', ['Gate – march.mp3']],
    'none' => ['MUSIC', null, null, []],
]);

it('writes a feed that any reader of XML takes, whatever episodes are called', function (string $title, string $plain) {
    $show = Show::read((string) json_encode(['version' => 1, 'show' => ['title' => mb_scrub($title), 'description' => mb_scrub($title),
        'language' => 'en', 'author' => mb_scrub($title),
        'address' => 'https://canal.example/show'], 'destination' => json_decode(description(''), true)['destination']]), 'host');
    $episode = new Episode('0123456789abcdef', 'odd name & more#1.mp3', $title, $title, 61.6, 12_345, 'audio/mpeg', 1_790_000_000);
    $document = new DOMDocument;
    expect($document->loadXML(Feed::write($show, [$episode], $show->address)))->toBeTrue();
    $xpath = new DOMXPath($document);
    $xpath->registerNamespace('media', 'http://search.yahoo.com/mrss/');
    $xpath->registerNamespace('podcast', 'https://podcastindex.org/namespace/1.0');
    foreach (['//channel/title', '//channel/description', '//podcast:person', '//item/title', '//item/description'] as $query) {
        // A reader of XML makes one line break of all of them (XML 1.0, 2.11).
        expect(str_replace("\r\n", "\n", $xpath->evaluate("string($query)")))->toBe($plain);
    }
    expect($xpath->evaluate('string(//item/enclosure/@url)'))->toBe('https://canal.example/show/odd%20name%20%26%20more%231.mp3')
        ->and($xpath->evaluate('string(//item/media:content/@duration)'))->toBe('62')
        ->and($xpath->evaluate('string(//item/guid/@isPermaLink)'))->toBe('false')
        ->and(strtotime($xpath->evaluate('string(//item/pubDate)')))->toBe(1_790_000_000)
        ->and($xpath->evaluate('string(//lastBuildDate)'))->toBe($xpath->evaluate('string(//item/pubDate)'));
})->with([
    'plain' => ['Steam day', 'Steam day'],
    'signs of XML' => ['<![CDATA[x]]> & "lift" \'gate\' <b>', '<![CDATA[x]]> & "lift" \'gate\' <b>'],
    'letters of many scripts' => ['Größe – 船 🚢 شراع', 'Größe – 船 🚢 شراع'],
    'what no document may hold' => ["a\u{0}b\u{8}c\u{FFFE}d\te", "abcd\te"],
    'bytes that are no text' => ["lift \xFF\xC3", 'lift ??'],
]);

it('lists hundreds of results that are offered, and no host twice', function () {
    $source = $this->bring('tune.wav', $this->wave(4800));
    $this->order(['sources' => (string) $source->id, 'format' => 'mp3']);
    $result = Result::query()->sole();
    foreach (range(1, 300) as $number) {
        DB::table('results')->insert(['name' => "tune $number.mp3", 'turn' => $number] + array_diff_key($result->getRawOriginal(), ['id' => 0]));
    }
    mkdir($this->home.'/hosts/canal', 0777, true);
    file_put_contents($this->home.'/hosts/canal/host.json', json_encode(['version' => 1, 'show' => ['title' => 'Canal', 'description' => '', 'language' => 'en',
        'author' => '', 'address' => 'https://canal.example'], 'destination' => json_decode(description(''), true)['destination']]));
    $ids = Result::query()->pluck('id')->implode(',');
    foreach (['/outside/publish', '/outside/players', '/outside/page'] as $page) {
        $few = queriesOf(fn () => $this->get($page.'?results='.$result->id)->assertOk());
        expect(queriesOf(fn () => $this->get($page.'?results='.$ids)->assertOk()))->toBeLessThanOrEqual($few + 6, $page);
    }
    expect(Source::query()->count())->toBe(1);
});
