<?php

declare(strict_types=1);

use App\Outside\Publishing\Feed;
use App\Outside\Publishing\Hosts;
use App\Outside\Publishing\LocalHost;
use App\Results\Models\Result;

/** A host that wants MP3 with a title, not louder than −15 LUFS. */
function podcastHost(mixed $test, string $name = 'canal', array $limits = ['tags' => ['title'], 'most_lufs' => -15]): LocalHost
{
    mkdir($test->home.'/hosts/'.$name, 0777, true);
    file_put_contents($test->home.'/hosts/'.$name.'/host.json', json_encode(['version' => 1, 'show' => ['title' => 'Canal & “lift”',
        'description' => 'Every second week.',
        'language' => 'en', 'author' => 'Wrenfield Canal Society', 'address' => 'https://canal.example/show/'], 'destination' => ['title' => 'Canal host',
            'note' => 'MP3.', 'accepts' => [['containers' => ['mp3'], 'codecs' => ['mp3'], 'picture' => false, 'most_channels' => 2,
                'constant' => true]],
            'limits' => $limits, 'spec' => ['version' => 1, 'container' => 'mp3']]]));

    return app(Hosts::class)->named($name);
}

it('answers with the reasons, or takes an episode into its feed', function () {
    $this->get('/outside/publish')->assertOk()->assertSee('No host is known.');
    podcastHost($this);
    $source = $this->bring('Steam day.wav', $this->wave(96_000));
    $this->order(['sources' => (string) $source->id, 'format' => 'wav']);
    $this->order(['sources' => (string) $source->id, 'format' => 'mp3', 'quality' => 'kbps:128', 'level_kind' => 'lufs', 'level_value' => '-20', 'level_ceiling' => '-1']);
    [$wave, $loud] = Result::query()->orderBy('id')->get()->all();
    expect($loud->state->value)->toBe('done');
    $this->post('/results/many', ['do' => 'publish', 'results' => "$wave->id,$loud->id"])
        ->assertRedirect('/outside/publish?results='.urlencode("$wave->id,$loud->id"));
    $this->get("/outside/publish?results=$wave->id,$loud->id")->assertSee('Offer 2 results');
    $this->followingRedirects()->post('/outside/publish', ['host' => 'canal', 'results' => "$wave->id,$loud->id"])
        ->assertSee('is refused by')->assertSee('MP3')->assertSee('title');
    expect(app(Hosts::class)->named('canal')->episodes())->toBe([]);
    // With a title it is taken.
    $this->order(['sources' => (string) $source->id, 'format' => 'mp3', 'quality' => 'kbps:128', 'level_kind' => 'lufs', 'level_value' => '-20', 'level_ceiling' => '-1']);
    $tagged = Result::query()->latest('id')->firstOrFail();
    $tags = $this->home.'/tags.json';
    file_put_contents($tags, json_encode(['title' => 'Steam day <1>', 'comment' => 'Boilers & boats']));
    exec(base_path('octavox').' make '.escapeshellarg($source->path).' --into '.escapeshellarg($this
        ->home.'/shelf').' --format mp3 --kbps 128 --level lufs:-20:-1 --tags '
        .escapeshellarg($tags).' 2>&1', $said, $status);
    expect($status)->toBe(0, implode("\n", $said));
    $made = glob($this->home.'/shelf/*.mp3')[0];
    copy($made, $tagged->path);
    $this->followingRedirects()->post('/outside/publish', ['host' => 'canal', 'results' => (string) $tagged->id])
        ->assertSee('is published by');
    $episodes = app(Hosts::class)->named('canal')->episodes();
    expect($episodes)->toHaveCount(1)->and($episodes[0]->title)->toBe('Steam day <1>')->and($episodes[0]->bytes)->toBe(filesize($tagged
        ->path));
    // Offered once more it takes its own place, with the guid and the day that it had.
    $guid = $episodes[0]->guid;
    $this->post('/outside/publish', ['host' => 'canal', 'results' => (string) $tagged->id]);
    expect(array_map(fn ($one): string => $one->guid, app(Hosts::class)->named('canal')->episodes()))->toBe([$guid]);
    $feed = $this->get('/hosted/canal/feed.xml')->assertOk()->assertHeader('Content-Type', 'application/rss+xml; charset=utf-8')
        ->getContent();
    $document = new DOMDocument;
    expect($document->loadXML($feed))->toBeTrue();
    $xpath = new DOMXPath($document);
    $xpath->registerNamespace('media', 'http://search.yahoo.com/mrss/');
    $xpath->registerNamespace('podcast', 'https://podcastindex.org/namespace/1.0');
    $one = fn (string $query): string => (string) $xpath->evaluate("string($query)");
    expect($one('/rss/@version'))->toBe('2.0')->and($one('//channel/title'))->toBe('Canal & “lift”')->and($one('//item/title'))
        ->toBe('Steam day <1>')
        ->and($one('//item/description'))->toBe('Boilers & boats')->and($one('//item/guid'))->toBe($guid)
        ->and($one('//item/enclosure/@length'))->toBe((string) filesize($tagged->path))->and($one('//item/enclosure/@type'))
        ->toBe('audio/mpeg')
        ->and($one('//item/enclosure/@url'))->toBe('http://localhost/hosted/canal/'.$guid.'.mp3')
        ->and($one('//item/media:content/@duration'))->toBe('2')
        ->and($one('//podcast:guid'))->toMatch('/^[0-9a-f]{8}-[0-9a-f]{4}-5[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/')
        ->and(strtotime($one('//item/pubDate')))->toBeGreaterThan(time() - 3600);
    $this->get('/hosted/canal/'.$guid.'.mp3')->assertOk();
    foreach (['host.json', 'episodes.json', '..%2f..%2foctavox.sqlite', 'x.mp3'] as $file) {
        $this->get('/hosted/canal/'.$file)->assertNotFound();
    }
    $this->post('/outside/publish/withdraw', ['host' => 'canal', 'guid' => $guid]);
    expect(app(Hosts::class)->named('canal')->episodes())->toBe([])->and(is_file($this->home."/hosts/canal/$guid.mp3"))->toBeFalse()
        ->and(is_file($tagged->path))->toBeTrue();
});

it('makes the guid of the show as the standard has it', function () {
    $host = podcastHost($this);
    // As another library makes UUIDs of version 5.
    $made = new ReflectionMethod(Feed::class, 'guid');
    expect($made->invoke(null, 'https://canal.example/show/feed.xml'))->toBe('ef8cdfff-615d-55e4-a841-7a2130b55ca6')
        ->and($host->feed('http://localhost:8090/hosted/canal'))->toContain('<podcast:medium>podcast')
        ->toContain('ef8cdfff-615d-55e4-a841-7a2130b55ca6');
});

it('takes nothing where its description cannot be read, and stays in its folder', function () {
    mkdir($this->home.'/hosts/odd', 0777, true);
    file_put_contents($this->home.'/hosts/odd/host.json',
        '{"version":1,"show":{"title":"x","description":"","language":"","author":"","address":"javascript:alert(1)"},"destination":{}}');
    $this->get('/outside/publish')->assertOk()->assertSee('odd');
    $source = $this->bring('a.wav', $this->wave(9600));
    $this->order(['sources' => (string) $source->id, 'format' => 'wav']);
    $this->followingRedirects()->post('/outside/publish', ['host' => 'odd', 'results' => (string) Result::query()->value('id')])
        ->assertSee('so it takes nothing');
    foreach (['..', '.', 'a/b', 'nowhere'] as $name) {
        expect(app(Hosts::class)->named($name))->toBeNull();
    }
    $this->post('/outside/publish', ['host' => '..', 'results' => '1'])->assertNotFound();
});

it('serves nothing but its own episodes, under addresses at which it is reached', function () {
    podcastHost($this);
    $folder = $this->home.'/hosts/canal';
    [$one, $link, $odd] = [str_repeat('a', 32), str_repeat('b', 32), str_repeat('c', 32)];
    $episode = fn (string $guid, string $file, string $type): array => ['guid' => $guid, 'file' => $file, 'title' => 'T', 'description' => '', 'seconds' => 1.0,
        'bytes' => 3, 'type' => $type, 'published' => 1_780_000_000];
    file_put_contents("$folder/$one.mp3", 'mp3');
    file_put_contents($this->home.'/secret', 'secret');
    symlink($this->home.'/secret', "$folder/$link.mp3");
    file_put_contents("$folder/$odd.html", '<script>');
    file_put_contents("$folder/page.mp3", 'page');
    file_put_contents("$folder/episodes.json", json_encode([$episode($one, "$one.mp3", 'audio/mpeg'), $episode($link, "$link.mp3",
        'audio/mpeg'),
        $episode($odd, "$odd.html", 'text/html'), $episode($odd, "$odd.mp3", "audio/mpeg\r\nX-Own: 1"), $episode('x', 'page.mp3',
            'audio/mpeg'),
        $episode($odd, 'page.mp3', 'audio/mpeg'), $episode($odd, '../secret', 'audio/mpeg')]));
    $this->get("/hosted/canal/$one.mp3")->assertOk()->assertHeader('Content-Type', 'audio/mpeg');
    foreach (["$link.mp3", "$odd.html", "$odd.mp3", 'page.mp3', 'secret', '..%2fsecret'] as $file) {
        $this->get("/hosted/canal/$file")->assertNotFound();
    }
    $feed = fn (): string => $this->call('GET', 'http://localhost:8123/hosted/canal/feed.xml')->assertOk()->getContent();
    expect($feed())->toContain("http://localhost:8123/hosted/canal/$one.mp3", 'http://localhost:8123/hosted/canal/feed.xml')->not
        ->toContain('page.mp3');
    $this->put('/settings', ['public_address' => 'https://lift.example:8443/sound/'])->assertRedirect();
    expect($feed())->toContain("https://lift.example:8443/sound/hosted/canal/$one.mp3")->not->toContain('8123');
    foreach (['javascript:alert(1)', 'https://a b', "https://a\nb", 'ftp://x'] as $strange) {
        $this->put('/settings', ['public_address' => $strange]);
        expect($feed())->toContain('https://lift.example:8443/sound/');
    }
    $this->put('/settings', ['public_address' => '']);
    expect($feed())->toContain('http://localhost:8123/');
});
