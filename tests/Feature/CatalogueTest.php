<?php

declare(strict_types=1);

use App\Outside\Catalogue\Candidate;
use App\Results\Models\Result;
use App\Sources\Models\Source;
use Octavox\Core\Tests\Support\Waiting;
use Symfony\Component\Process\Process;

/** Begins a catalogue of its own on a free port, and tells where. @return array{Process, string} */
function catalogueOf(string $script): array
{
    $socket = stream_socket_server('tcp://127.0.0.1:0');
    $port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
    fclose($socket);
    $process = new Process([PHP_BINARY, '-S', "127.0.0.1:$port", $script], base_path());
    $process->start();
    Waiting::until(fn (): bool => @fsockopen('127.0.0.1', $port) !== false);

    return [$process, "http://127.0.0.1:$port"];
}

it('knows a disc by its table of contents, shows it beside what is there, and notes it once it is accepted', function () {
    [$process, $address] = catalogueOf('catalogue/server.php');
    config(['octavox.catalogue' => $address]);
    mkdir($this->home.'/drive/tray', 0777, true);
    file_put_contents($this->home.'/drive/tray/Band.bin', str_repeat(pack('v*', ...range(1, 1176)), 975));
    file_put_contents($this->home.'/drive/tray/Band.cue',
        "FILE \"Band.bin\" BINARY\nTRACK 01 AUDIO\nINDEX 01 00:00:00\nTRACK 02 AUDIO\nINDEX 01 00:05:00\n"
        ."TRACK 03 AUDIO\nINDEX 01 00:09:00\n");
    $this->post('/discs', ['audio' => '1']);
    $source = Source::query()->sole();
    $page = $this->get("/outside/catalogue?sources=$source->id")->assertOk()->assertSee('Steam day (second edition)')->assertSee('100 %')
        ->assertSee('Lift waltz');
    preg_match_all('/name="accept\['.$source->id.'\]" value="([^"]*)"( checked)?/', $page->getContent(), $choices);
    expect($choices[1])->toHaveCount(3)->and($choices[2][1])->toBe(' checked');
    // Nothing is noted before.
    expect($source->refresh()->noted())->toBeNull();
    $this->post('/outside/catalogue', ['accept' => [$source->id => html_entity_decode($choices[1][1])], 'cover' => '1'])
        ->assertSessionHas('said', 'Saved beside the source; results made from it will carry it.');
    $facts = $source->refresh()->facts();
    expect($facts->tags->values())->toMatchArray(['album' => 'Steam day', 'album_artist' => 'Wrenfield Brass', 'year' => '2026'])
        ->and($facts->chapters[2]->title)->toBe('Song for six boats');
    $this->order(['sources' => (string) $source->id, 'format' => 'flac', 'pieces' => "$source->id:chapters", 'apart' => '1', 'name' => '{track:2} {title}']);
    $results = Result::query()->orderBy('id')->get();
    expect($results->map(fn (Result $one): string => basename($one->path))->all())->toBe(['01 Gate march.flac', '02 Lift waltz.flac',
        '03 Song for six boats.flac']);
    $third = $this->bring('third.flac', (string) file_get_contents($results[2]->path))->facts();
    expect($third->tags->values())->toMatchArray(['title' => 'Song for six boats', 'artist' => 'Hetty Marlowe', 'album' => 'Steam day',
        'track' => '3', 'isrc' => 'ZZWRN2600003'])
        ->and($third->cover)->toBe('image/png');
    $this->get("/sources/$source->id")->assertSee('Known from the catalogue');
    $this->delete("/sources/$source->id/catalogue")->assertRedirect();
    expect($source->refresh()->facts()->tags->values())->not->toHaveKey('album');
    $process->stop();
});

it('knows a recording by its sound, and finds others by words', function () {
    [$process, $address] = catalogueOf('catalogue/server.php');
    config(['octavox.catalogue' => $address]);
    // The music of the demo: an evening rehearsal, begun late and made smaller.
    $folder = sys_get_temp_dir().'/octavox-demo-'.getmypid();
    exec(PHP_BINARY.' -d ffi.enable=1 '.escapeshellarg(base_path('demo/build.php')).' '.escapeshellarg($folder));
    exec(base_path('octavox').' make '.escapeshellarg($folder.'/Evening rehearsal.mp3').' --into '.escapeshellarg($folder.'/out').' --format mp3 --kbps 48 --from 1.7 2>&1', $said, $status);
    expect($status)->toBe(0);
    $known = $this->bring('unknown 1.mp3', (string) file_get_contents(glob($folder.'/out/*.mp3')[0]));
    $other = $this->bring('other.wav', $this->wave(480_000));
    exec('rm -rf '.escapeshellarg($folder));
    $page = $this->get("/outside/catalogue?sources=$known->id,$other->id")->assertOk()->assertSee('Evening rehearsal')
        ->assertSee('knows nothing of it by its sound');
    preg_match('/name="accept\['.$known->id.'\]" value="(\{[^"]*)" checked/', $page->getContent(), $choice);
    $this->get("/outside/catalogue?sources=$other->id&words=tour+of+the+lift")->assertSee('Tour of the lift')->assertSee('80 %');
    // Accepted for one, left for the other.
    $this->post('/outside/catalogue', ['accept' => [$known->id => html_entity_decode($choice[1]), $other->id => '']]);
    expect($known->refresh()->facts()->tags->values())->toMatchArray(['title' => 'Evening rehearsal', 'artist' => 'Wrenfield Brass',
        'track' => '4'])
        ->and($other->refresh()->noted())->toBeNull();
    $this->post('/outside/catalogue', ['accept' => [$known->id => '{broken', 999 => '{"fields":{"title":"x"}}']])
        ->assertSessionHas('said', 'Nothing was accepted, so nothing was noted.');
    $process->stop();
});

it('is harmed by no answer: offline, slow, endless, strange or hostile', function () {
    $source = $this->bring('a.wav', $this->wave(48_000 * 3));
    config(['octavox.catalogue' => 'http://127.0.0.1:9']);
    $this->get("/outside/catalogue?sources=$source->id")->assertOk()->assertSee('The catalogue does not answer.');
    [$slow, $address] = catalogueOf('tests/Support/hostile-catalogue.php');
    config(['octavox.catalogue' => "$address/slow"]);
    $this->get("/outside/catalogue?sources=$source->id&words=anything")->assertOk()->assertSee('does not answer');
    $slow->stop(0);
    [$process, $address] = catalogueOf('tests/Support/hostile-catalogue.php');
    foreach (['endless' => 'cannot be understood', 'elsewhere' => 'cannot be understood', 'error' => 'cannot be understood',
        'nonsense' => 'cannot be understood'] as $way => $says) {
        config(['octavox.catalogue' => "$address/$way"]);
        $this->get("/outside/catalogue?sources=$source->id&words=anything")->assertOk()->assertSee($says);
    }
    config(['octavox.catalogue' => "$address/hostile"]);
    $page = $this->get("/outside/catalogue?sources=$source->id&words=anything")->assertOk()->assertDontSee('<script>alert', false)
        ->assertSee('Second')->getContent();
    expect($page)->not->toContain("\u{202E}")->not->toContain('/etc/passwd')->and(strlen($page))->toBeLessThan(100_000);
    // A cover that is no picture is told, and everything else is taken.
    $this->post('/outside/catalogue', ['accept' => [$source->id => '{"fields":{"title":"Second"},"cover":"evil"}'], 'cover' => '1'])
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, 'The cover was not taken'));
    expect($source->refresh()->facts()->tags->values())->toMatchArray(['title' => 'Second']);
    $process->stop();
});

it('takes of a candidate only what it may be', function (mixed $given, ?array $fields) {
    expect(Candidate::of($given)?->fields)->toBe($fields);
})->with([
    [['fields' => ['title' => ' Gate  march ', 'track' => 3, 'other' => 'x'], 'confidence' => NAN], ['title' => 'Gate march', 'track' => '3']],
    [['fields' => ['title' => "\0\x07"]], null], ['text', null], [null, null], [['fields' => ['title' => str_repeat('é', 500)]], ['title' => str_repeat('é', 200)]],
]);
