<?php

declare(strict_types=1);

use Octavox\Core\Parallel\CoreScript;
use Octavox\Core\Sound\Native\Addition;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Interleaving;
use Octavox\Core\Sound\Native\SampleConversion;
use Octavox\Core\Tests\Support\Scratch;

/** @return list<float> */
function floatsOf(FloatBuffer $buffer, int $count): array
{
    return array_values(unpack('g*', $buffer->bytes(0, $count)) ?: []);
}

/** Runs a script as the core's own are run; what it prints. */
function bare(string $code, bool $brief, string ...$words): string
{
    $process = proc_open([...CoreScript::php($brief), Scratch::write('bare.php', $code), ...$words], [1 => ['pipe', 'w']], $pipes);
    $said = (string) stream_get_contents($pipes[1]);
    proc_close($process);

    return $said;
}

beforeEach(fn () => mt_srand(20));

it('turns every 16-bit number into a fraction of full scale and back', function () {
    $numbers = range(-32768, 32767);
    $bytes = pack('s*', ...$numbers);
    $buffer = new FloatBuffer(65536);
    SampleConversion::get()->from16($bytes, $buffer, 0);
    expect(floatsOf($buffer, 65536) === array_map(fn (int $number): float => $number / 32768, $numbers))->toBeTrue()
        ->and(SampleConversion::get()->bytes16($buffer, 0, 65536) === $bytes)->toBeTrue();
});

it('rounds to the nearest, halves to even, and limits at full scale, wherever a sample stands in a block', function () {
    $wanted = ['0.5' => 0, '1.5' => 2, '2.5' => 2, '-0.5' => 0, '-1.5' => -2, '0.49' => 0, '0.51' => 1, '-32768' => -32768,
        '-32769' => -32768, '32766.6' => 32767, '32767.6' => 32767, '32768' => 32767, '99999' => 32767, '-99999' => -32768];
    foreach ($wanted as $value => $number) {
        foreach ([1, 7, 8, 15, 16, 17, 33] as $count) {
            $buffer = FloatBuffer::fromBytes(str_repeat(pack('g', (float) $value / 32768), $count));
            expect(array_values(unpack('s*', SampleConversion::get()->bytes16($buffer, 0, $count)) ?: []))->toBe(array_fill(0, $count,
                $number), "$value among $count");
        }
    }
});

it('takes numbers of every width and gives them back', function (int $bits) {
    $most = 1 << ($bits - 1);
    $numbers = [-$most, 1 - $most, -1, 0, 1, $most - 1, ...array_map(fn (): int => mt_rand(-$most, $most - 1), range(1, 1000))];
    $count = count($numbers);
    $in = FFI::new("int32_t[$count]");
    FFI::memcpy($in, pack('l*', ...$numbers), 4 * $count);
    $buffer = new FloatBuffer($count);
    SampleConversion::get()->fromNumbers(FFI::addr($in[0]), $bits, $buffer, 0, $count);
    expect(floatsOf($buffer, $count) === array_map(fn (int $number): float => $number / $most, $numbers))->toBeTrue();
    $out = FFI::new("int32_t[$count]");
    SampleConversion::get()->toNumbers($buffer, 0, $count, $bits, FFI::addr($out[0]));
    expect(FFI::string(FFI::cast('char*', FFI::addr($out)), 4 * $count) === pack('l*', ...$numbers))->toBeTrue();
})->with([4, 8, 12, 16, 20, 24]);

it('puts channels together and sets them apart', function (int $channels, int $frames) {
    $parts = array_map(fn (int $channel): FloatBuffer => FloatBuffer::fromBytes(pack('g*',
        ...array_map(fn (int $frame): float => 100 * $channel + $frame, range(1, $frames)))), range(1, $channels));
    $whole = new FloatBuffer($channels * $frames + 3);
    Interleaving::get()->join(array_map(fn (FloatBuffer $part): FFI\CData => $part->at(0), $parts), $whole, 3, $frames);
    $wanted = [];
    for ($frame = 1; $frame <= $frames; $frame++) {
        for ($channel = 1; $channel <= $channels; $channel++) {
            $wanted[] = 100.0 * $channel + $frame;
        }
    }
    expect(floatsOf($whole, 3 + $channels * $frames))->toBe([0.0, 0.0, 0.0, ...$wanted]);

    $apart = array_map(fn (): FloatBuffer => new FloatBuffer($frames + 2), $parts);
    Interleaving::get()->partInto($whole, 3, $apart, 2, $frames);
    foreach ($apart as $channel => $part) {
        expect(floatsOf($part, $frames + 2))->toBe([0.0, 0.0, ...floatsOf($parts[$channel], $frames)]);
    }
})->with([1, 2, 3, 6, 8])->with([1, 5, 64, 65]);

it('adds small numbers exactly', function () {
    foreach ([1, 2, 15, 16, 1000, Addition::MOST] as $count) {
        $numbers = array_map(fn (): int => mt_rand(0, Addition::MOST - 1), range(1, $count));
        expect(Addition::get()->ofSmall(pack('N*', ...$numbers)))->toBe(array_sum($numbers));
    }
    expect(Addition::get()->ofSmall(str_repeat(pack('N', Addition::MOST - 1), Addition::MOST)))->toBe(Addition::MOST * (Addition::MOST - 1))
        ->and(Addition::get()->ofSmall(''))->toBe(0);
});

it('begins a PHP that has every function and class that the core calls', function () {
    $functions = $classes = [];
    $folders = [dirname(__DIR__).'/src', dirname(__DIR__).'/bin', dirname(__DIR__, 2).'/cli'];
    foreach ($folders as $folder) {
        foreach (new RegexIterator(new RecursiveIteratorIterator(new RecursiveDirectoryIterator($folder, FilesystemIterator::SKIP_DOTS)),
            '/\.php$/') as $file) {
            $tokens = array_values(array_filter(PhpToken::tokenize((string) file_get_contents((string) $file)),
                fn (PhpToken $token): bool => ! $token->isIgnorable()));
            foreach ($tokens as $index => $token) {
                $before = $tokens[$index - 1] ?? null;
                if ($token->is(T_STRING) && ($tokens[$index + 1]->text ?? '') === '(' && $before?->is([T_OBJECT_OPERATOR,
                    T_NULLSAFE_OBJECT_OPERATOR, T_DOUBLE_COLON, T_NEW, T_FUNCTION, T_STRING]) === false) {
                    $functions[$token->text] = true;
                }
                if ($token->is(T_NAME_FULLY_QUALIFIED) && substr_count($token->text, '\\') === 1) {
                    $classes[substr($token->text, 1)] = true;
                }
            }
        }
    }
    expect(count($functions))->toBeGreaterThan(150)->and(array_keys($classes))->toContain('FFI', 'Closure', 'HashContext');
    $missing = bare('<?php [, $functions, $classes] = $argv;
        echo implode(" ", [...array_filter(explode(" ", $functions), fn ($name) => ! function_exists($name)), ...array_filter(explode(" ",
            $classes), fn ($name) => ! class_exists($name) && ! interface_exists($name) && ! function_exists($name) && !
                defined($name))]);', true, implode(' ', array_keys($functions)), implode(' ', array_keys($classes)));
    expect($missing)->toBe('');
});

it('compiles what works for long, and not what works for a moment', function () {
    $code = '<?php echo json_encode([function_exists("opcache_get_status") && (opcache_get_status(false)["jit"]["on"] ?? false), '
        .'class_exists("FFI"), ini_get("memory_limit"), ini_get("display_errors")]);';
    expect(bare($code, true))->toBe('[false,true,"192M","0"]')->and(bare($code, false))->toBe('[true,true,"192M","0"]');
});

it('works without any package', function () {
    $script = dirname(__DIR__).'/bin/bare.php';
    $process = proc_open([PHP_BINARY, '-n', $script, dirname(__DIR__, 2).'/cli/octavox.php', 'read', '/nowhere/at-all.wav'],
        [1 => ['pipe', 'w'], 2 => ['pipe', 'w']], $pipes);
    $said = stream_get_contents($pipes[1]).stream_get_contents($pipes[2]);
    expect($said)->toContain('at-all.wav')->and(proc_close($process))->toBeGreaterThan(0);
});
