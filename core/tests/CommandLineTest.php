<?php

declare(strict_types=1);

use Octavox\Cli\MakeCommand;
use Octavox\Cli\ProgressLine;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\MakerProcess;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Tests\Support\SampleLibrary;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

array_map(fn (string $name) => require_once dirname(__DIR__, 2)."/cli/src/$name.php", ['Command', 'SpecOptions', 'MakeCommand',
    'ProgressLine']);

it('reads files and whole folders', function () {
    $folder = Scratch::folder();
    file_put_contents("$folder/a.mp4", Signal::movie([Signal::pictureTrack(26), Signal::aacTrack([Signal::sweep(48_000)])]));
    file_put_contents("$folder/b.wav", Signal::wave([Signal::steps(100, 1)], SampleFormat::signed(16)));
    [$status, $said] = octavox('read', $folder, '--json');
    expect($status)->toBe(0)->and(array_column($said['sources'], 'container'))->toBe(['mp4', 'wav'])
        ->and($said['sources'][0]['tracks'][1])
        ->toMatchArray(['number' => 2, 'kind' => 'sound', 'codec' => 'aac', 'rate' => 48000, 'channels' => 1, 'layout' => 'mono',
            'language' => 'eng', 'samples' => 48000, 'starts' => 0])
        ->and(octavox('read', "$folder/a.mp4")[1])->toContain('AAC-LC, mono, 48,000 Hz');
});

it('plans, makes and compares', function () {
    $folder = Scratch::folder();
    $a = Scratch::write('a.mp4', Signal::movie([Signal::aacTrack([Signal::sweep(48_000)])]));
    [$planned, $plan] = octavox('make', $a, '--into', $folder, '--format', 'wav', '--plan', '--json');
    [$made, $result] = octavox('make', $a, '--into', $folder, '--format', 'wav', '--json');
    [$again] = octavox('make', $a, '--into', $folder, '--format', 'mp3', '--kbps', '320', '--name', '{stem} for radio');
    [$compared, $comparison] = octavox('compare', "$folder/a.wav", "$folder/a for radio.mp3", '--json');
    expect([$planned, $made, $again, $compared])->toBe([0, 0, 0, 0])
        ->and($plan['results'][0]['predicted_bytes'])->toBe($result['results'][0]['bytes'])
        ->and($result['results'][0])
        ->toMatchArray(['state' => 'done', 'action' => 'remade', 'container' => 'wav', 'samples' => 48_000, 'error' => null])
        ->and($result['results'][0]['receipt']['checksum'])->toBe('xxh128:'.hash_file('xxh128', "$folder/a.wav"))
        ->and($comparison)->toMatchArray(['same_length' => true, 'samples' => [48_000, 48_000], 'offset' => 0, 'identical' => false])
        ->and($comparison['difference_db'])->toBeLessThan(-40.0);
});

it('tells failures as JSON with exit status 1 and wrong usage with 2', function () {
    $text = Scratch::write('notes.mp4', 'only text');
    $good = Scratch::write('good.wav', Signal::wave([Signal::steps(100, 1)], SampleFormat::signed(16)));
    [$status, $said] = octavox('read', $text, '--json');
    [$mixed, $both] = octavox('make', $text, $good, '--into', Scratch::folder(), '--format', 'mp3', '--json');
    [$alone, $one] = octavox('make', $text, '--into', Scratch::folder(), '--format', 'mp3', '--json');
    expect($status)->toBe(1)->and($said['error'])->toMatchArray(['code' => 'unknown-format', 'path' => $text])
        ->and($said['error']['message'])->toContain('This is text')
        ->and($mixed)->toBe(1)->and(array_column($both['results'], 'state'))->toEqualCanonicalizing(['failed', 'done'])
        ->and([$alone, $one['error']['code']])->toBe([1, 'unknown-format'])
        ->and(octavox('make', $good, '--into', '/tmp', '--format', 'xyz')[0])->toBe(2)
        ->and(octavox('make', $good, '--format', 'wav')[0])->toBe(2)
        ->and(octavox('read', '--sideways', $good)[0])->toBe(2)
        ->and(octavox('sing')[0])->toBe(2)
        ->and(octavox()[1])->toContain('./octavox compare A B');
});

it('says of one command what it takes', function (array $words, string $begins, string $without) {
    [$status, $said] = octavox(...$words);
    expect($status)->toBe(0)->and(trim($said))->toStartWith($begins)->and($said)->not->toContain($without);
})->with([
    'after it' => [['make', '--help'], './octavox make PATH…', './octavox watch'],
    'with paths before' => [['watch', '/somewhere', '-h'], './octavox watch DIR…', './octavox make'],
    'by help' => [['help', 'compare'], './octavox compare A B', './octavox orders'],
    'of the web part' => [['demo', '--help'], './octavox demo [--port N]', './octavox read'],
    'of none that there is' => [['help', 'sing'], 'Octavox takes the sound', 'no command'],
]);

it('shapes: splits, labels, cuts, levels', function () {
    $folder = Scratch::folder();
    $in = [Signal::sine(48_000, 440, 48000, 0.25), Signal::steps(48_000, 3)];
    $path = Scratch::write('talk.wav', Signal::wave($in, SampleFormat::signed(16)));
    [$status, $made] = octavox('make', $path, '--into', $folder, '--format', 'wav', '--layout', 'split', '--labels', 'lav,boom', '--pieces',
        '0.25-0.5,0.75-end', '--json');
    expect($status)->toBe(0)->and(array_map(fn (array $one): string => basename($one['path']), $made['results']))
        ->toBe(['talk lav.wav', 'talk boom.wav'])
        ->and(Signal::decodeFile("$folder/talk boom.wav")[0] === [...array_slice($in[1], 12_000, 12_000),
            ...array_slice($in[1], 36_000)])->toBeTrue()
        ->and(file_get_contents("$folder/talk lav.wav"))->toContain("bextZ\x02\0\0lav");
    [$status, $made] = octavox('make', $path, '--into', $folder, '--format', 'flac', '--layout', 'left', '--until', '0.5', '--fade-out',
        '0.1', '--level', 'peak:-3', '--name', '{stem} low', '--json');
    expect($status)->toBe(0)->and($made['results'][0]['samples'])->toBe(24_000)
        ->and($made['results'][0]['receipt']['level']['after']['peak_db'])->toEqualWithDelta(-3.0, 0.05);
    [$status, , $error] = octavox('make', $path, '--into', $folder, '--format', 'wav', '--layout', '5.1');
    expect($status)->toBe(1)
        ->and(octavox('make', $path, '--into', $folder, '--format', 'wav', '--layout', '5.1', '--json')[1]['error']['message'])
        ->toContain('needs 6 channels');
    expect(octavox('make', $path, '--into', $folder, '--format', 'wav', '--pieces', '0-1', '--from', '0')[0])->toBe(2);
});

it('leaves silences out, and gives several files one gain', function () {
    $folder = Scratch::folder();
    $loud = [...array_fill(0, 10_240, 0.0), ...Signal::sine(20_480, 500, 8000, 0.5), ...array_fill(0, 10_240, 0.0),
        ...Signal::sine(5_120, 500, 8000, 0.5)];
    $a = Scratch::write('a.wav', Signal::wave([$loud], SampleFormat::signed(16), 8000));
    $b = Scratch::write('b.wav', Signal::wave([Signal::sine(16_000, 500, 8000, 0.05)], SampleFormat::signed(16), 8000));
    [$status, $made] = octavox('make', $a, '--into', $folder, '--format', 'wav', '--pieces', 'silences:-45:0.5', '--each', '--json');
    expect($status)->toBe(0)->and(array_column($made['results'], 'samples'))->toBe([20_480, 5_120]);
    [$status, $made] = octavox('make', $a, $b, '--into', $folder, '--format', 'wav', '--level', 'peak:-1', '--together', '--name',
        '{stem} up', '--json');
    $gains = array_map(fn (array $one): float => $one['receipt']['level']['gain_db'], $made['results']);
    expect($status)->toBe(0)->and($gains[0])->toEqualWithDelta(5.02, 0.03)->and($gains[1])->toBe($gains[0]);
});

it('listens', function () {
    $path = Scratch::write('left.wav',
        Signal::wave([Signal::sine(48_000, 440, 48000, 0.25), array_fill(0, 48_000, 0.0)], SampleFormat::signed(16)));
    [$status, $said] = octavox('read', $path, '--listen', '--json');
    expect($status)->toBe(0)->and($said['sources'][0]['analysis'][0])->toMatchArray(['track' => 1, 'samples' => 48_000])
        ->and($said['sources'][0]['analysis'][0]['peak_db'])->toEqualWithDelta(-12.04, 0.02)
        ->and(array_column($said['sources'][0]['findings'], 'code'))->toContain('silent-side')
        ->and(octavox('read', $path, '--listen')[1])->toContain('The right side of track 1 is silent')->toContain('LUFS');
});

it('takes a spec from a file: the same plans as of the options that say the same, and options lie over it', function () {
    $folder = Scratch::folder();
    $wave = Scratch::write('two.wav', Signal::wave([Signal::steps(9600, 1), Signal::steps(9600, 2)], SampleFormat::signed(16)));
    $spec = Scratch::write('spec.json',
        (string) json_encode(['version' => 1, 'container' => 'flac', 'name' => '{stem} {label}', 'sounds' => [
            ['layout' => 'split', 'labels' => ['lav', 'boom'], 'pieces' => '0.05-0.15', 'fade_in' => '0.01', 'level' => 'peak:-3',
                'bit_depth' => 24],
        ], 'place' => $folder, 'if_exists' => 'replace']));
    [$status, $own] = octavox('make', $wave, '--spec', $spec, '--plan', '--json');
    [, $same] = octavox('make', $wave, '--into', $folder, '--format', 'flac', '--name', '{stem} {label}', '--layout', 'split',
        '--labels', 'lav,boom',
        '--pieces', '0.05-0.15', '--fade-in', '0.01', '--level', 'peak:-3', '--bits', '24', '--exists', 'replace', '--plan', '--json');
    expect($status)->toBe(0)->and($own)->toBe($same)->and(array_column($own['results'], 'path'))
        ->toBe(["$folder/two lav.flac", "$folder/two boom.flac"]);

    [, $over] = octavox('make', $wave, '--spec', $spec, '--format', 'wav', '--layout', 'mono', '--name', 'one', '--plan', '--json');
    expect($over['results'])->toHaveCount(1)->and($over['results'][0]['path'])->toBe("$folder/one.wav")
        ->and($over['results'][0]['bits'])->toBe(24)->and($over['results'][0]['samples'])->toBe(4800);
    [$status, $made] = octavox('make', $wave, '--spec', $spec, '--json');
    expect($status)->toBe(0)->and(array_column($made['results'], 'samples'))->toBe([4800, 4800]);
});

it('refuses a spec that it does not understand, and names the field', function (string $spec, string $says) {
    $wave = Scratch::write('two.wav', Signal::wave([Signal::steps(100, 1)], SampleFormat::signed(16)));
    [$status, $said, $error] = octavox('make', $wave, '--spec', Scratch::write('spec.json', $spec), '--into', Scratch::folder(), '--json');
    expect($status)->toBe(2)->and($said['error']['message'])->toContain($says)->and($error)->toContain($says);
})->with([
    ['nonsense', 'no JSON object'], ['{"container":"wav"}', 'version'], ['{"version":9}', 'version 9'],
    ['{"version":1,"colour":"red"}', 'colour'], ['{"version":1,"sounds":[{"rate":"fast"}]}', 'sounds[0].rate'],
    ['{"version":1,"container":"wav","sounds":[{"rate":48000},{"level":5}]}', 'sounds[1].level'],
]);

it('says that a spec cannot be read', function () {
    $wave = Scratch::write('two.wav', Signal::wave([Signal::steps(100, 1)], SampleFormat::signed(16)));
    [$status, , $error] = octavox('make', $wave, '--spec', '/nowhere/spec.json', '--into', Scratch::folder());
    expect($status)->toBe(2)->and($error)->toContain('--spec');
});

it('gives each sound of a video its own settings', function () {
    $folder = Scratch::folder();
    $movie = Scratch::write('tour.mp4',
        Signal::movie([Signal::pictureTrack(50), Signal::aacTrack([Signal::sweep(96_000), Signal::sweep(96_000)]),
            Signal::aacTrack([Signal::sweep(96_000)])]));
    $spec = Scratch::write('spec.json', (string) json_encode(['version' => 1, 'container' => 'mkv', 'place' => $folder, 'sounds' => [
        ['tracks' => '2', 'codec' => 'flac', 'layout' => 'mono'],
        ['tracks' => '3', 'codec' => 'opus', 'rate_control' => ['mode' => 'constant', 'kbps' => 96]],
    ]]));
    [$status, $made] = octavox('make', $movie, '--spec', $spec, '--json');
    [, $read] = octavox('read', "$folder/tour.mkv", '--json');
    expect($status)->toBe(0)->and($made['results'][0]['receipt']['sounds'])->toHaveCount(2)
        ->and(array_map(fn (array $track): array => [$track['codec'], $track['layout'] ?? null], $read['sources'][0]['tracks']))
        ->toBe([['h264', null], ['flac', 'mono'], ['opus', 'mono']]);
    // A track that nobody chose is not in it; one that is chosen twice is.
    file_put_contents($spec, json_encode(['version' => 1, 'container' => 'mkv', 'place' => $folder, 'if_exists' => 'replace', 'sounds' => [
        ['tracks' => '3'], ['tracks' => '3', 'codec' => 'opus']]]));
    octavox('make', $movie, '--spec', $spec);
    expect(array_column(octavox('read', "$folder/tour.mkv", '--json')[1]['sources'][0]['tracks'], 'codec'))->toBe(['h264', 'aac', 'opus']);
});

it('leaves a source that is right already, or copies it, as it is told', function () {
    $folder = Scratch::folder();
    $wave = Scratch::write('two.wav', Signal::wave([Signal::steps(9600, 1), Signal::steps(9600, 2)], SampleFormat::signed(16)));
    [$status, $left] = octavox('make', $wave, '--into', $folder, '--format', 'wav', '--right', 'leave', '--json');
    expect($status)->toBe(0)->and($left['results'])->toBe([])->and(glob("$folder/*"))->toBe([]);
    [, $copied] = octavox('make', $wave, '--into', $folder, '--format', 'wav', '--right', 'copy', '--json');
    expect($copied['results'][0]['action'])->toBe('kept')->and(hash_file('xxh128', "$folder/two.wav"))->toBe(hash_file('xxh128', $wave));
    [, $other] = octavox('make', $wave, '--into', $folder, '--format', 'wav', '--bits', '24', '--right', 'leave', '--json');
    expect($other['results'][0]['action'])->toBe('remade');
});

it('prints a plan that a worker carries out as it stands', function () {
    $folder = Scratch::folder();
    $wave = Scratch::write('two.wav', Signal::wave([Signal::steps(9600, 1), Signal::steps(9600, 2)], SampleFormat::signed(16)));
    [, $planned] = octavox('make', $wave, '--into', $folder, '--format', 'flac', '--layout', 'swap', '--plan', '--json');
    $plan = Plan::fromArray($planned['results'][0]['plan']);
    expect(json_decode($plan->toJson(), true))->toBe($planned['results'][0]['plan']);
    $child = MakerProcess::start($plan);
    while ($child->listen()) {
        $child->wait(0.2);
    }
    expect($child->result()->path)->toBe($planned['results'][0]['path'])->and($child->result()->receipt?->samples)->toBe(9600);
});

it('names every option, every format and every part in its help', function () {
    [$status, $help] = octavox();
    foreach ([...MakeCommand::OPTIONS, ...MakeCommand::FLAGS, 'listen'] as $option) {
        expect($help)->toContain("--$option");
    }
    foreach (Outputs::all() as $format) {
        expect($help)->toMatch('/\b'.$format->name().'\b/');
    }
    foreach (glob(dirname(__DIR__, 2).'/bench/parts/*.php') ?: [] as $part) {
        expect($help)->toContain(basename($part, '.php'));
    }
    expect($status)->toBe(0);
});

it('makes by a recipe into folders that the pattern names, and lists the recipes', function () {
    $folder = Scratch::folder();
    mkdir("$folder/in/day 1", recursive: true);
    file_put_contents("$folder/in/day 1/Lift \u{1F6A4}.wav", Signal::wave([Signal::steps(4800, 1), Signal::steps(4800, 2)],
        SampleFormat::signed(16)));
    [$status, $made] = octavox('make', "$folder/in", '--recipe', 'two-microphones', '--into', "$folder/out", '--name',
        '{tree}/[{artist} ]{stem} {label} {today}', '--name-signs', 'remove', '--json');
    $today = date('Y-m-d');
    expect($status)->toBe(0)->and(array_column($made['results'], 'path'))
        ->toBe(["$folder/out/in/day 1/Lift lav $today.wav", "$folder/out/in/day 1/Lift boom $today.wav"])
        ->and(array_column($made['results'], 'channels'))->toBe([1, 1])
        ->and(octavox('recipes', '--json')[1]['recipes'][0])->toHaveKeys(['name', 'title', 'note', 'spec'])
        ->and(octavox('recipes', 'x')[0])->toBe(2)->and(octavox('make', "$folder/in", '--recipe', 'none', '--into', $folder)[0])->toBe(1);
    [$wrong, $said] = octavox('make', "$folder/in", '--recipe', 'put-away', '--into', $folder, '--name', '{colour}', '--json');
    expect($wrong)->toBe(2)->and($said['error']['message'])->toContain('no field {colour}')->toContain('{title}');
});

it('tells an encoder, a cover, broadcasters and the length what is wanted', function () {
    $folder = Scratch::folder();
    $wave = Scratch::write('two.wav', Signal::wave([Signal::sweep(48_000), Signal::sweep(48_000)], SampleFormat::signed(16)));
    $cover = Scratch::write('cover.png', "\x89PNG\r\n\x1A\n".str_repeat('p', 400));
    [$status, $made] = octavox('make', $wave, '--into', $folder, '--format', 'mp3', '--kbps', '128', '--held', 'average', '--stereo',
        'separate', '--checksums', '--cover', $cover, '--length', '0.5', '--json', '--plan');
    $plan = $made['results'][0]['plan'];
    expect($status)->toBe(0)->and($plan['cover'])->toBe(realpath($cover))->and($plan['sounds'][0])->toMatchArray(['rate_mode' => 'average',
        'settings' => ['stereo' => 'separate', 'checksums' => true], 'samples' => 24_000]);
    [$status] = octavox('make', $wave, '--into', $folder, '--format', 'wav', '--broadcast', 'originator=Lift crew; date=2026-05-09');
    expect($status)->toBe(0)->and(SampleLibrary::broadcast("$folder/two.wav"))
        ->toMatchArray(['originator' => 'Lift crew', 'date' => '2026-05-09']);
    foreach ([['--held', 'average'], ['--cover', '/nowhere.png'], ['--broadcast', 'colour=red'], ['--length', 'long'],
        ['--compression', '9']] as $wrong) {
        expect(octavox('make', $wave, '--into', $folder, '--format', 'flac', ...$wrong)[0])->toBe(2, $wrong[0]);
    }
});

it('takes tags from a table or a document, for all or for each by its name', function (string $name, string $text, array $titles) {
    $folder = Scratch::folder();
    mkdir("$folder/in");
    foreach (['one', 'two'] as $seed => $one) {
        file_put_contents("$folder/in/$one.wav", Signal::wave([Signal::steps(4800 + $seed, $seed)], SampleFormat::signed(16)));
    }
    $tags = Scratch::write($name, $text);
    [$status, $made] = octavox('make', "$folder/in", '--into', "$folder/out", '--format', 'flac', '--tags', $tags, '--name',
        '{title|stem}', '--json');
    expect($status)->toBe(0)->and(array_map(fn (array $one): string => basename($one['path']), $made['results']))->toBe($titles);
})->with([
    ['tags.json', '{"title": "Gates", "artist": ["A", "B"]}', ['Gates.flac', 'Gates 2.flac']],
    ['each.json', '[{"path": "two.wav", "title": "Second"}]', ['one.flac', 'Second.flac']],
    ['tags.csv', "\u{FEFF}Path,Title\none.wav,\"First, long\"\nin/two.wav,Second\n", ['First, long.flac', 'Second.flac']],
    ['tags.csv', "path;title;artist\r\none.wav;Erste;\r\n;;\r\n", ['Erste.flac', 'two.flac']],
    ['tags.tsv', "title\tpath\nTab\ttwo.wav", ['one.flac', 'Tab.flac']],
]);

it('refuses tags that cannot be understood', function (string $text) {
    $wave = Scratch::write('a.wav', Signal::wave([Signal::steps(4800, 1)], SampleFormat::signed(16)));
    expect(octavox('make', $wave, '--into', Scratch::folder(), '--format', 'flac', '--tags', Scratch::write('tags', $text))[0])->toBe(2);
})->with(['title,artist', '[{"title": "x"}]', '{"duration": "5"}', '{"title": 5}', '', "\xFF\xFE"]);

it('makes for a destination what also needs tags and a cover, and lets nobody else decide what is made', function () {
    $folder = Scratch::folder();
    $wave = Scratch::write('episode.wav', Signal::wave([Signal::sweep(48_000), Signal::sweep(48_000)], SampleFormat::signed(16)));
    $cover = Scratch::write('cover.jpg', "\xFF\xD8\xFF\xE0".str_repeat('c', 500));
    $tags = Scratch::write('tags.json', '{"title": "Lift", "artist": "Wrenfield"}');
    expect(octavox('make', $wave, '--for', 'podcast-host', '--into', $folder, '--json')[0])->toBe(1);
    [$status, $made] = octavox('make', $wave, '--for', 'podcast-host', '--into', $folder, '--tags', $tags, '--cover', $cover, '--name',
        '{artist} - {title}', '--json');
    expect($status)->toBe(0)->and($made['results'][0]['path'])->toBe("$folder/Wrenfield - Lift.mp3")
        ->and(octavox('read', "$folder/Wrenfield - Lift.mp3", '--for', 'podcast-host', '--json')[1]['sources'][0]['fit']['accepted'])
        ->toBeTrue()
        ->and(octavox('make', $wave, '--for', 'podcast-host', '--into', $folder, '--rate', '44100')[0])->toBe(2);
});

it('puts each result beside its source', function () {
    $folder = Scratch::folder();
    mkdir("$folder/day 1");
    $paths = [];
    foreach (['a.wav', 'day 1/b.wav'] as $seed => $name) {
        file_put_contents($paths[] = "$folder/$name", Signal::wave([Signal::steps(4800, $seed)], SampleFormat::signed(16)));
    }
    [$status, $made] = octavox('make', $folder, '--beside', '--format', 'flac', '--json');
    expect($status)->toBe(0)->and(array_column($made['results'], 'path'))->toBe(["$folder/a.flac", "$folder/day 1/b.flac"])
        ->and(octavox('make', $folder, '--beside', '--into', $folder, '--format', 'flac')[0])->toBe(2);
    array_map(fn (string $path) => expect(is_file($path))->toBeTrue(), $paths);
});

it('says how far it is on a terminal, in one line, and nothing of that in a pipe', function () {
    $terminal = fopen('php://memory', 'w+b');
    $line = new ProgressLine($terminal, 4, 120.0);
    $line->show(1, 60.0);
    $line->show(1, 61.0);
    $line->clear();
    $line->clear();
    rewind($terminal);
    $said = (string) stream_get_contents($terminal);
    expect($said)->toMatch('/^1 of 4, 50 %, \d+ × real time, \d+ s left\r\x1B\[2K$/')
        ->and((new ReflectionProperty(ProgressLine::class, 'terminal'))->getValue(ProgressLine::on(false, 1, 1.0)))->toBeNull();
    $wave = Scratch::write('a.wav', Signal::wave([Signal::steps(4800, 1)], SampleFormat::signed(16)));
    [, , $error] = octavox('make', $wave, '--into', Scratch::folder(), '--format', 'flac');
    expect($error)->toBe('');
});

it('completes words in a shell, and has a page of its manual that is its help', function () {
    [$status] = octavox('completion', 'bash');
    $run = function (string ...$words): string {
        $lines = sprintf('source <(%s completion bash); COMP_WORDS=(%s); COMP_CWORD=%d; _octavox; echo "${COMPREPLY[@]}"',
            escapeshellarg(dirname(__DIR__, 2).'/octavox'), implode(' ', array_map(escapeshellarg(...), ['octavox', ...$words])),
            count($words));

        return trim((string) shell_exec('bash -c '.escapeshellarg($lines)));
    };
    expect($status)->toBe(0)->and($run('ma'))->toBe('make')->and($run('make', '--for', 'pod'))->toBe('podcast-host')
        ->and($run('make', 'x', '--tag'))->toBe('--tag-signs --tags')->and($run('make', '--format', 'fl'))->toBe('float flac')
        ->and(octavox('completion', 'fish')[0])->toBe(2);
    foreach (['octavox.1' => '.TH OCTAVOX 1', 'command-line.md' => './octavox compare A B [--json]'] as $name => $part) {
        $page = (string) shell_exec(PHP_BINARY.' '.escapeshellarg(dirname(__DIR__, 2).'/bin/man.php').' --print '.$name);
        expect((string) file_get_contents(dirname(__DIR__, 2).'/docs/'.$name))->toBe($page)->and($page)->toContain($part);
    }
    $help = (string) shell_exec(escapeshellarg(dirname(__DIR__, 2).'/octavox').' --help');
    expect((string) file_get_contents(dirname(__DIR__, 2).'/docs/command-line.md'))->toContain(trim($help));
});
