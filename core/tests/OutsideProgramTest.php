<?php

declare(strict_types=1);

use Octavox\Core\Parallel\OutsideProgram;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Waiting;

/** Begins a script of PHP as an outside program. */
function outside(string $script, ?int $patience = null, string ...$words): OutsideProgram
{
    return OutsideProgram::begin(['/usr/bin/env', 'php', Scratch::write('outside.php', '<?php '.$script), ...$words], $patience)
        ?? throw new RuntimeException('It cannot be begun.');
}

/** All it says. */
function wordsOf(OutsideProgram $program, int $most = 65_536): string
{
    for ($all = ''; ($bytes = $program->read($most)) !== ''; $all .= $bytes) {
        expect(strlen($bytes))->toBeLessThanOrEqual($most);
    }

    return $all;
}

it('hands over all that a program says, in parts of any length', function (int $most) {
    $program = outside('mt_srand(1); for ($i = 0; $i < 40; $i++) { echo str_repeat(chr(mt_rand(0, 255)), mt_rand(1, 9000)); }');
    mt_srand(1);
    $expected = '';
    for ($index = 0; $index < 40; $index++) {
        $expected .= str_repeat(chr(mt_rand(0, 255)), mt_rand(1, 9000));
    }
    expect(md5(wordsOf($program, $most)))->toBe(md5($expected))->and($program->status())->toBe(0)->and($program->wasSilent())->toBeFalse()
        ->and($program->complaint())->toBe('');
})->with([1, 4095, 65_536, 1 << 20]);

it('gives words to a program as they are, nothing to read, and little to know', function () {
    $words = ['a b', '$(touch x)', '`id`', '"', "'", '*', '-v', "line\nbreak", ''];
    $program = outside('echo json_encode([array_slice($argv, 1), stream_get_contents(STDIN), getcwd(), array_keys(getenv())]);', null,
        ...$words);
    [$got, $input, $folder, $names] = json_decode(wordsOf($program), true);
    expect($got)->toBe($words)->and($input)->toBe('')->and($folder)->toBe('/')->and($names)->toContain('PATH')
        ->and(array_diff($names, ['PATH', 'LANG', 'PWD', 'OLDPWD', 'SHLVL', '_']))->toBe([]);
});

it('tells how a program ended, and the last of its complaints', function (string $script, int $status, string $complaint) {
    $program = outside($script);
    wordsOf($program);
    expect($program->status())->toBe($status)->and($program->complaint())->toBe($complaint);
})->with([
    'well' => ['fwrite(STDERR, "0 % done\n\n");', 0, '0 % done'],
    'with a number' => ['fwrite(STDERR, "begun\nno such format\n"); exit(3);', 3, 'no such format'],
    'with a number and half a sound' => ['echo "half"; exit(1);', 1, ''],
    'by a signal' => ['posix_kill(posix_getpid(), SIGSEGV);', -1, ''],
    'bytes that are no text' => ['fwrite(STDERR, "odd \xFF\x1B[31m");', 0, 'odd ? [31m'],
    'words without an end' => ['for ($i = 0; $i < 3000; $i++) { fwrite(STDERR, str_repeat("x", 1000)); } fwrite(STDERR, "\nlast words");',
        0, 'last words'],
    'long after it has said all' => ['fclose(STDOUT); for ($i = 0; $i < 300; $i++) { fwrite(STDERR, str_repeat("x", 1000)); } fwrite(STDERR, "\nlast words");',
        0, 'last words'],
]);

it('gives up what is silent, and ends it with all that it began', function () {
    $note = Scratch::path('note');
    posix_mkfifo($note, 0600);
    // The note stays open as long as the program or what it began is there.
    $program = outside('echo "begun"; $note = fopen($argv[1], "w"); $child = proc_open(["sleep", "600"], [3 => $note], $pipes); fwrite($note, "both\n"); sleep(600);', 1, $note);
    expect(wordsOf($program))->toBe('begun')->and($program->wasSilent())->toBeTrue();
    $open = fopen($note, 'r');
    expect(fgets($open))->toBe("both\n");
    unset($program);
    expect(stream_get_contents($open))->toBe('');
});

it('says where a program cannot be begun', function () {
    $program = OutsideProgram::begin(['/nowhere/decoder', 'x']);
    expect($program === null ? '' : wordsOf($program))->toBe('');
    expect($program?->status())->not->toBe(0);
});

it('leaves no program behind when the process that began it is killed', function () {
    $mark = 'outlives-'.getmypid();
    $script = Scratch::write('begins.php', '<?php require '.var_export(dirname(__DIR__).'/bin/autoload.php', true).';
        $program = '.OutsideProgram::class.'::begin(["/bin/sh", "-c", "sleep 300; : '.$mark.'"], 60); echo "begun\n"; $program->read(10);');
    $process = proc_open([PHP_BINARY, $script], [['file', '/dev/null', 'r'], ['pipe', 'w']], $pipes);
    $is = fn (): bool => trim((string) shell_exec('pgrep -f '.escapeshellarg('^/bin/sh -c sleep 300; : '.$mark))) !== '';
    expect(fgets($pipes[1]))->toBe("begun\n");
    expect(Waiting::until($is))->toBeTrue();
    proc_terminate($process, SIGKILL);
    expect(Waiting::until(fn (): bool => ! $is()))->toBeTrue();
});
