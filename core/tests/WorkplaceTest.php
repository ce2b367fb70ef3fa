<?php

declare(strict_types=1);

use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Journal;
use Octavox\Core\Make\Originals;
use Octavox\Core\Make\Placing;
use Octavox\Core\Make\ReplacedFiles;
use Octavox\Core\Make\Result;
use Octavox\Core\Make\Workplace;
use Octavox\Core\Make\WouldReplaceSource;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** A finished temporary file of a worker. */
function finished(Workplace $place, string $token, string $bytes = 'sound'): string
{
    file_put_contents($place->temporary($token), $bytes);

    return $place->temporary($token);
}

function planInto(string $folder): Plan
{
    $wave = Scratch::write('take.wav', Signal::wave([Signal::steps(100, 1)], SampleFormat::signed(16)));

    return Planning::plan(Reader::read($wave), Spec::sound(Outputs::named('flac'), RateControl::none(), $folder));
}

/** @return list<string> */
function namesIn(string $folder): array
{
    return array_values(array_diff(scandir($folder) ?: [], ['.', '..']));
}

it('gives names that are free, one after another, whatever stands there', function () {
    $folder = Scratch::folder();
    $place = new Workplace($folder);
    file_put_contents("$folder/take.wav", 'mine');
    mkdir("$folder/take 2.wav");
    symlink("$folder/gone", "$folder/take 3.wav");
    expect($place->place(finished($place, 'a'), 'take.wav', IfExists::Number))->toBe("$folder/take 4.wav")
        ->and($place->place(finished($place, 'b'), 'take.wav', IfExists::Number))->toBe("$folder/take 5.wav")
        ->and(file_get_contents("$folder/take.wav"))->toBe('mine')
        ->and(namesIn($folder))->toBe(['take 2.wav', 'take 3.wav', 'take 4.wav', 'take 5.wav', 'take.wav']);
});

it('leaves out what is to be left out, and keeps the temporary file for whoever asks', function () {
    $folder = Scratch::folder();
    $place = new Workplace($folder);
    expect($place->place(finished($place, 'a'), 'take.wav', IfExists::Skip))->toBe("$folder/take.wav")
        ->and($place->place(finished($place, 'b', 'other'), 'take.wav', IfExists::Skip))->toBeNull()
        ->and(file_get_contents("$folder/take.wav"))->toBe('sound')->and(is_file($place->temporary('b')))->toBeTrue();
    $place->forget('b');
    expect(namesIn($folder))->toBe(['take.wav']);
});

it('takes a link to nowhere for something that is there', function () {
    $folder = Scratch::folder();
    $place = new Workplace($folder);
    symlink("$folder/gone/for/good", "$folder/take.wav");
    expect($place->has('take.wav'))->toBeTrue()->and($place->has('other.wav'))->toBeFalse()
        ->and($place->place(finished($place, 'a'), 'take.wav', IfExists::Skip))->toBeNull()
        ->and(readlink("$folder/take.wav"))->toBe("$folder/gone/for/good");
});

it('replaces only what is no original', function () {
    $folder = Scratch::folder();
    file_put_contents("$folder/original.wav", 'the only copy');
    symlink("$folder/original.wav", "$folder/by link.wav");
    link("$folder/original.wav", "$folder/second name.wav");
    file_put_contents("$folder/older.wav", 'older');
    $place = new Workplace($folder, Originals::of(["$folder/original.wav"]));
    foreach (['original.wav', 'by link.wav', 'second name.wav'] as $name) {
        expect(fn () => $place->place(finished($place, 'a'), $name, IfExists::Replace))->toThrow(WouldReplaceSource::class);
    }
    expect($place->place(finished($place, 'a'), 'older.wav', IfExists::Replace))->toBe("$folder/older.wav")
        ->and(file_get_contents("$folder/older.wav"))->toBe('sound')->and(file_get_contents("$folder/original.wav"))->toBe('the only copy');
});

it('says where nothing can be written', function () {
    $file = Scratch::write('file', 'x');
    expect(fn () => (new Workplace("$file/below"))->prepare())->toThrow(FileUnwritable::class)
        ->and(fn () => (new Workplace('/proc/octavox'))->prepare())->toThrow(FileUnwritable::class);
    $place = new Workplace(Scratch::folder().'/a/b/c');
    $place->prepare();
    $place->prepare();
    expect(is_dir(dirname($place->temporary('x'))))->toBeTrue();
});

it('gives twenty workers that want one name twenty names', function () {
    $folder = Scratch::folder();
    $script = Scratch::write('place.php',
        '<?php require '.var_export(dirname(__DIR__).'/bin/autoload.php', true).'; $place = new '.Workplace::class
        .'($argv[1]); file_put_contents($place->temporary($argv[2]), $argv[2]); echo $place->place($place->temporary($argv[2]),'
        .' "take.wav", '
        .IfExists::class.'::Number);');
    $processes = $said = [];
    foreach (range(1, 20) as $number) {
        $processes[] = proc_open([PHP_BINARY, $script, $folder, "worker$number"], [1 => ['pipe', 'w']], $pipes);
        $said[] = $pipes[1];
    }
    $paths = array_map(stream_get_contents(...), $said);
    array_map(proc_close(...), $processes);
    expect(array_unique($paths))->toHaveCount(20)->and(namesIn($folder))->toHaveCount(20);
    foreach ($paths as $index => $path) {
        expect(file_get_contents($path))->toBe('worker'.($index + 1));
    }
});

it('finds a result again that got its name, whichever that was, and none that did not', function () {
    $folder = Scratch::folder();
    $plan = planInto($folder);
    $place = new Workplace($folder);
    $journal = new Journal("$folder-journal.json");
    expect($journal->placed($plan))->toBeNull();
    $temporary = finished($place, 'a');
    $journal->write(Placing::of($temporary, Result::skipped($plan)));
    // Written down, and not yet named.
    expect($journal->placed($plan))->toBeNull();
    file_put_contents("$folder/take.flac", 'of somebody else');
    $named = $place->place($temporary, 'take.flac', IfExists::Number);
    expect($journal->placed($plan)?->path)->toBe($named)->and($named)->toBe("$folder/take 2.flac");
    // Another file of that name is another file.
    unlink((string) $named);
    file_put_contents((string) $named, 'sound');
    file_put_contents("$folder/take 3.flac", 'sound');
    expect($journal->placed($plan)?->path)->not->toBe("$folder/take.flac");
    $journal->forget();
    $journal->forget();
    expect($journal->placed($plan))->toBeNull()->and(is_file("$folder-journal.json"))->toBeFalse();
});

it('takes nothing from a note that is none', function (string $bytes) {
    $folder = Scratch::folder();
    file_put_contents("$folder/journal.json", $bytes);
    expect((new Journal("$folder/journal.json"))->placed(planInto($folder)))->toBeNull();
})->with(['', 'x', '[]', '{"device":1}', '{"result":"x"}', '{"result":{}}', '{"device":null,"inode":null,"result":{"path":"/x"}}']);

it('sweeps what nobody writes any more, and leaves what is younger or held', function () {
    $folder = Scratch::folder();
    $place = new Workplace($folder);
    [$old, $held, $young] = [finished($place, 'old'), finished($place, 'held'), finished($place, 'young')];
    file_put_contents("$folder/take.wav", 'a result');
    touch($old, time() - 3600);
    touch($held, time() - 3600);
    $handle = fopen($held, 'r');
    flock($handle, LOCK_EX);
    expect($place->sweep())->toBe(1)->and(namesIn($folder))->toBe([basename($held), basename($young), 'take.wav']);
    fclose($handle);
    expect($place->sweep())->toBe(1)->and($place->has('take.wav'))->toBeTrue()->and($place->has('other.wav'))->toBeFalse();
});

it('puts a file into the bin before a result takes its place', function () {
    $folder = Scratch::folder();
    file_put_contents("$folder/Gates.wav", 'before');
    $bins = ReplacedFiles::on(['/proc/none', "$folder/bin"], $folder);
    foreach (['first', 'second'] as $number => $bytes) {
        $place = new Workplace($folder, new Originals, $bins);
        file_put_contents($place->temporary("t$number"), $bytes);
        expect($place->place($place->temporary("t$number"), 'Gates.wav', IfExists::Replace))->toBe("$folder/Gates.wav");
    }
    expect(file_get_contents("$folder/Gates.wav"))->toBe('second')->and(file_get_contents("$folder/bin/replaced-t0/Gates.wav"))
        ->toBe('before')
        ->and(file_get_contents("$folder/bin/replaced-t1/Gates.wav"))->toBe('first')
        ->and(file_get_contents("$folder/bin/replaced-t0/.was"))->toBe("$folder/Gates.wav");
    // Nothing was there: nothing is in the bin. A link is no file of its own.
    $place = new Workplace($folder, new Originals, $bins);
    file_put_contents($place->temporary('t2'), 'new');
    $place->place($place->temporary('t2'), 'New.wav', IfExists::Replace);
    expect(is_dir("$folder/bin/replaced-t2"))->toBeFalse()->and(ReplacedFiles::on(['/proc/none'], $folder))->toBeNull();
    // What cannot be put there is not replaced.
    file_put_contents("$folder/bin/replaced-t3", 'in the way');
    file_put_contents($place->temporary('t3'), 'lost?');
    expect(fn () => $place->place($place->temporary('t3'), 'New.wav', IfExists::Replace))->toThrow(FileUnwritable::class)
        ->and(file_get_contents("$folder/New.wav"))->toBe('new');
});
