<?php

declare(strict_types=1);

use Octavox\Cli\Arguments;
use Octavox\Cli\Arrivals;
use Octavox\Cli\FoundFile;
use Octavox\Cli\MakeCommand;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Playlist;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;
use Octavox\Core\Tests\Support\Waiting;

array_map(fn (string $name) => require_once dirname(__DIR__, 2)."/cli/src/$name.php",
    ['Command', 'Usage', 'Arguments', 'Home', 'Arrivals', 'FoundFile', 'SpecOptions', 'MakeCommand']);

/** A command that is going on: its process, its output and its errors. */
function going(array $words, array $more = []): array
{
    $process = proc_open(['setsid', '--wait', dirname(__DIR__, 2).'/octavox', ...$words], [['file', '/dev/null', 'r'], ['pipe', 'w'],
        ['pipe', 'w']], $pipes,
        null, $more + getenv());

    return [$process, $pipes[1], $pipes[2]];
}

/** @return list<string> names in a folder, hidden ones too */
function lying(string $folder): array
{
    return array_values(array_diff(scandir($folder), ['.', '..']));
}

/** @return list<int> processes whose command holds a text */
function running(string $text): array
{
    $found = [];
    foreach (glob('/proc/[0-9]*/cmdline') as $path) {
        if (str_contains((string) @file_get_contents($path), $text)) {
            $found[] = (int) explode('/', $path)[2];
        }
    }

    return $found;
}

function shortWave(string $path, int $frames = 4800): void
{
    file_put_contents($path, Signal::wave([Signal::steps($frames, 1)], SampleFormat::signed(16)));
}

it('ends with Ctrl-C at once, leaves nothing half made and nobody at work, and says so as shells do', function (int $signal) {
    $folder = Scratch::folder();
    $into = Scratch::folder();
    $second = Signal::wave([Signal::sweep(48_000)], SampleFormat::signed(16));
    $data = str_repeat(substr($second, 44), 900);
    file_put_contents("$folder/long.wav", substr($second, 0, 4).pack('V', 36 + strlen($data)).substr($second, 8, 32).pack('V',
        strlen($data)).$data);
    shortWave("$folder/a first.wav");
    [$process, $out] = going(['make', "$folder/a first.wav", "$folder/long.wav", '--into', $into, '--format', 'mp3']);
    expect(Waiting::until(fn (): bool => in_array('a first.mp3', lying($into), true) && array_filter(lying($into),
        fn (string $name): bool => str_ends_with($name, '.part')) !== []))->toBeTrue();
    // The whole group gets it, as from a terminal.
    $leader = running("make\0$folder/a first.wav");
    posix_kill(-posix_getpgid($leader[0]), $signal);
    $said = stream_get_contents($out);
    expect(proc_close($process))->toBe(128 + $signal)->and($said)->toContain('stopped; what is done stays')
        ->and(lying($into))->toBe(['a first.mp3'])->and(running($into))->toBe([]);
})->with(['Ctrl-C' => [SIGINT], 'a closed terminal' => [SIGHUP], 'a polite kill' => [SIGTERM]]);

it('tells on being stopped what lies there by then, to the file', function () {
    $folder = Scratch::folder();
    for ($number = 0; $number < 40; $number++) {
        shortWave(sprintf("$folder/%02d.wav", $number), 20_000);
    }
    foreach ([1, 3, 8] as $many) {
        $into = Scratch::folder();
        [$process, $out] = going(['make', $folder, '--into', $into, '--format', 'flac', '--json'], ['OCTAVOX_HOME' => Scratch::folder()]);
        expect(Waiting::until(fn (): bool => count(glob("$into/*.flac")) >= $many))->toBeTrue();
        posix_kill(-posix_getpgid(running("make\0$folder")[0]), SIGINT);
        $said = json_decode((string) stream_get_contents($out), true);
        $told = array_map(basename(...), array_column($said['results'], 'path'));
        sort($told);
        expect(proc_close($process))->toBe(130)->and($said['stopped'])->toBeTrue()->and($told)->toBe(lying($into))
            ->and(count($told))->toBeGreaterThanOrEqual($many);
    }
});

it('ends without a word when nobody reads what it prints', function () {
    $folder = Scratch::folder();
    for ($number = 0; $number < 60; $number++) {
        shortWave(sprintf("$folder/%02d.wav", $number), 100 + $number);
    }
    $process = proc_open(['bash', '-c', 'set -o pipefail; '.dirname(__DIR__, 2).'/octavox read "$1" | head -n 1', '-', $folder],
        [['file', '/dev/null', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
    [$out, $error] = [stream_get_contents($pipes[1]), stream_get_contents($pipes[2])];
    expect([proc_close($process), $error, substr_count($out, "\n")])->toBe([141, '', 1]);
});

it('makes what arrives in a watched folder, each file once, through renames and restarts', function () {
    $folder = Scratch::folder();
    $into = Scratch::folder();
    $home = ['OCTAVOX_HOME' => Scratch::folder()];
    $words = ['watch', $folder, '--into', $into, '--format', 'flac', '--still', '1', '--name', '{tree}/{stem}'];
    [$process] = going($words, $home);
    mkdir("$folder/deep");
    shortWave("$folder/deep/one.wav");
    file_put_contents("$folder/notes.txt", 'no recording');
    expect(Waiting::until(fn (): bool => glob("$into/*/deep/one.flac") !== []))->toBeTrue();
    rename("$folder/deep/one.wav", "$folder/deep/renamed.wav");
    shortWave("$folder/two.wav", 5000);
    expect(Waiting::until(fn (): bool => glob("$into/*/two.flac") !== []))->toBeTrue();
    posix_kill(-posix_getpgid(running("watch\0$folder")[0]), SIGINT);
    expect(proc_close($process))->toBe(0);
    // Restarted, it knows what it took, and takes what came meanwhile.
    shortWave("$folder/three.wav", 5100);
    [$process, $out] = going([...$words, '--once', '--json'], $home);
    $made = json_decode((string) stream_get_contents($out), true);
    expect(proc_close($process))->toBe(0)->and(array_map(fn (array $one): string => basename($one['path']), $made['results']))
        ->toBe(['three.flac'])
        ->and(glob("$into/*/deep/*"))->toHaveCount(1);
    // What it would make now, were something there: nothing; for other wishes everything, and that is forgotten.
    foreach ([0, 1] as $time) {
        [$process, $out] = going(['watch', $folder, '--into', $into, '--format', 'mp3', '--still', '0', '--dry-run', '--json'], $home);
        $said = json_decode((string) stream_get_contents($out), true);
        expect(proc_close($process))->toBe(0)->and(array_column($said['results'], 'state'))->toBe(['planned', 'planned', 'planned']);
    }
    expect(glob("$into/*.mp3"))->toBe([]);
});

it('says in one document what came at different times, and of an empty folder that nothing did', function () {
    $folder = Scratch::folder();
    $into = Scratch::folder();
    $home = ['OCTAVOX_HOME' => Scratch::folder()];
    $once = ['watch', $folder, '--into', $into, '--format', 'flac', '--once', '--json'];
    [$process, $out] = going($once, $home);
    expect(json_decode((string) stream_get_contents($out), true))->toBe(['results' => [], 'left_out' => []])->and(proc_close($process))
        ->toBe(0);
    shortWave("$folder/first.wav");
    shortWave("$folder/second.wav", 5000);
    [$process, $out] = going([...$once, '--still', '1'], $home);
    // The second grows until the first is made.
    expect(Waiting::until(function () use ($folder, $into): bool {
        touch("$folder/second.wav", time() + mt_rand(1, 1000));

        return lying($into) === ['first.flac'];
    }))->toBeTrue();
    $said = json_decode((string) stream_get_contents($out), true);
    expect(proc_close($process))->toBe(0)->and(array_map(basename(...), array_column($said['results'], 'path')))->toBe(['first.flac',
        'second.flac']);
});

it('does not tell twice of what it only planned, and asks for it again when it is begun anew', function () {
    $folder = Scratch::folder();
    shortWave("$folder/a.wav");
    shortWave("$folder/b.wav");
    $arrivals = fn (): Arrivals => Arrivals::of(Arguments::parse([$folder, '--format', 'flac'], MakeCommand::OPTIONS, MakeCommand::FLAGS),
        0);
    $files = array_map(fn (string $name): FoundFile => new FoundFile("$folder/$name.wav", false), ['a', 'b']);
    $first = $arrivals();
    $first->look($files);
    $first->told("$folder/a.wav");
    $first->told('/of/nobody.wav');
    expect(array_keys($first->still()))->toBe(["$folder/b.wav"])->and($first->look($files))->toBeFalse()
        ->and(array_keys($first->still()))->toBe(["$folder/b.wav"]);
    $anew = $arrivals();
    $anew->look($files);
    expect($anew->still())->toHaveCount(2);
});

it('tells of each round on a line of its own as long as it watches', function () {
    $folder = Scratch::folder();
    $into = Scratch::folder();
    [$process, $out] = going(['watch', $folder, '--into', $into, '--format', 'flac', '--still', '0', '--json'], ['OCTAVOX_HOME' => Scratch::folder()]);
    foreach (['one', 'two'] as $name) {
        shortWave("$folder/.$name.wav");
        rename("$folder/.$name.wav", "$folder/$name.wav");
        $said = json_decode((string) fgets($out), true);
        expect(array_map(basename(...), array_column($said['results'], 'path')))->toBe(["$name.flac"]);
    }
    posix_kill(-posix_getpgid(running("watch\0$folder")[0]), SIGINT);
    expect(stream_get_contents($out))->toBe('')->and(proc_close($process))->toBe(0);
});

it('waits for what still grows', function () {
    $folder = Scratch::folder();
    $into = Scratch::folder();
    shortWave("$folder/growing.wav", 48_000);
    $whole = (string) file_get_contents("$folder/growing.wav");
    file_put_contents("$folder/growing.wav", substr($whole, 0, 3000));
    [$process] = going(['watch', $folder, '--into', $into, '--format', 'flac', '--still', '2', '--once'], ['OCTAVOX_HOME' => Scratch::folder()]);
    for ($at = 3000; $at < strlen($whole); $at += 12_000) {
        usleep(400_000);
        file_put_contents("$folder/growing.wav", substr($whole, $at, 12_000), FILE_APPEND);
        expect(lying($into))->toBe([]);
    }
    expect(proc_close($process))->toBe(0)->and(lying($into))->toBe(['growing.flac'])
        ->and(octavox('compare', "$folder/growing.wav", "$into/growing.flac", '--json')[1]['identical'])->toBeTrue();
});

it('says what it would make without making it', function () {
    $folder = Scratch::folder();
    shortWave("$folder/a.wav");
    [$status, $said] = octavox('make', "$folder/a.wav", '--into', "$folder/out", '--format', 'flac', '--dry-run', '--json');
    expect($status)->toBe(0)->and($said['results'][0]['state'])->toBe('planned')->and(is_dir("$folder/out"))->toBeFalse();
});

it('takes what a playlist names', function (string $name, string $text, array $names, int $addresses) {
    $list = Playlist::read(Scratch::write($name, $text));
    expect($list->names)->toBe($names)->and($list->addresses)->toBe($addresses);
})->with([
    'M3U of Windows' => ['a.m3u', "#EXTM3U\r\n#EXTINF:12,Lift\r\nTake\\one.wav\r\n\r\nGr\xFC\xDFe.wav\r\nhttp://radio.example/live\r\n",
        ['Take/one.wav', 'Grüße.wav'], 1],
    'M3U8 with a mark' => ['a.m3u8', "\xEF\xBB\xBF../Wrenfield ä.wav\n/srv/b.wav\n", ['../Wrenfield ä.wav', '/srv/b.wav'], 0],
    'PLS' => ['a.pls', "[playlist]\nNumberOfEntries=2\nFile1=one.mp3\nTitle1=One\nFILE2 = two.mp3\nFile3=https://x.example/\n",
        ['one.mp3', 'two.mp3'], 1],
    'XSPF' => ['a.xspf',
        '<?xml version="1.0"?><playlist version="1" xmlns="http://xspf.org/ns/0/"><!-- <location>no.wav</location> --><trackList>'
        .'<track><location>file:///srv/Lift%20hall.wav</location></track><track><location>b%26c&amp;d.wav</location></track>'
        .'<track><location>http://x.example/a</location></track></trackList></playlist>', ['/srv/Lift hall.wav', 'b&c&d.wav'], 1],
    'UTF-16' => ['b.m3u', "\xFF\xFE".mb_convert_encoding("ä.wav\n", 'UTF-16LE'), ['ä.wav'], 0],
    'nothing' => ['c.m3u', '', [], 0],
]);

it('makes what a playlist names, and says what is missing', function () {
    $folder = Scratch::folder();
    shortWave("$folder/a.wav");
    file_put_contents("$folder/list.m3u8", "a.wav\ngone.wav\n");
    [$status, $said] = octavox('make', "$folder/list.m3u8", '--into', "$folder/out", '--format', 'flac', '--json');
    expect($status)->toBe(1)->and(array_column($said['results'], 'state'))->toContain('done', 'failed')
        ->and(implode(' ', array_column(array_filter($said['results'], fn (array $one): bool => $one['state'] === 'failed'), 'source')))
        ->toContain('gone.wav');
});

it('waits for the image of a disc as long as that grows, though its sheet came whole', function () {
    $folder = Scratch::folder();
    $arrivals = Arrivals::of(Arguments::parse([$folder, '--format', 'flac'], MakeCommand::OPTIONS, MakeCommand::FLAGS), 3600);
    file_put_contents("$folder/a.cue", 'sheet');
    file_put_contents("$folder/a.bin", 'image');
    $sheet = new FoundFile("$folder/a.cue", false, parts: ["$folder/a.bin"]);
    touch("$folder/a.cue", time() - 9000);
    touch("$folder/a.bin", time() - 9000);
    expect($arrivals->look([$sheet]))->toBeTrue();
    // As if hours had passed.
    $seen = new ReflectionProperty(Arrivals::class, 'seen');
    $pass = fn () => $seen->setValue($arrivals, array_map(fn (array $one): array => [$one[0], $one[1] - 9000], $seen->getValue($arrivals)));
    $pass();
    file_put_contents("$folder/a.bin", ' that grows', FILE_APPEND);
    expect($arrivals->look([$sheet]))->toBeTrue()->and($arrivals->still())->toBe([]);
    $pass();
    expect($arrivals->look([$sheet]))->toBeFalse()->and(array_keys($arrivals->still()))->toBe(["$folder/a.cue"]);
    $arrivals->taken("$folder/a.cue");
    expect($arrivals->look([$sheet]))->toBeFalse()->and($arrivals->still())->toBe([]);
});
