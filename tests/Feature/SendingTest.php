<?php

declare(strict_types=1);

use App\Http\Middleware\BoundedSending;
use App\Http\SlowReader;
use App\Processes\FileLock;
use App\Upkeep\Tidy;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Tests\TestCase;

/** As the answer is sent, before its process has ended it. */
function answeredBeside(int $bytes, string $visitor): Response
{
    $request = request()->duplicate(cookies: [config()->string('session.cookie') => $visitor]);
    $request->setMethod('GET');

    return app(BoundedSending::class)->handle($request, fn () => response(str_repeat('x', $bytes), 200, ['Content-Length' => (string) $bytes]));
}

it('sends so many long answers at once, and to one visitor fewer than all', function () {
    $source = $this->bring('long.wav', TestCase::wave(200_000));
    $long = (1 << 18) + 1;
    for ($number = 0; $number < 6; $number++) {
        expect(answeredBeside($long, 'one')->getStatusCode())->toBe(200);
    }
    expect(fn () => answeredBeside($long, 'one'))->toThrow(HttpException::class)
        ->and(answeredBeside($long - 1, 'one')->getStatusCode())->toBe(200)
        ->and(answeredBeside($long, 'two')->getStatusCode())->toBe(200)->and(answeredBeside($long, 'two')->getStatusCode())->toBe(200)
        ->and(fn () => answeredBeside($long, 'three'))->toThrow(HttpException::class);
    // Whoever was refused holds nothing.
    expect(glob(config()->string('octavox.home').'/locks/sending-*-*') ?: [])->toHaveCount(8);
    $locks = config()->string('octavox.home').'/locks';
    $one = BoundedSending::visitor('127.0.0.1', 'one');
    expect(BoundedSending::isRefused("/sources/$source->id/media", $one, $locks))->toBeTrue()
        ->and(BoundedSending::isRefused('/results/1/hear/2', BoundedSending::visitor('127.0.0.1', 'three'), $locks))->toBeTrue()
        ->and(BoundedSending::isRefused('/sources', $one, $locks))->toBeFalse()
        ->and(BoundedSending::isRefused('/api/v1/results/1/file', $one, $locks))->toBeFalse();
    $this->get("/sources/$source->id/media")->assertStatus(503)->assertHeader('Retry-After', '2')->assertSee('busy at the moment');
    // The end of an answer gives its place back.
    expect(BoundedSending::isRefused("/sources/$source->id/media", $one, $locks))->toBeFalse()
        ->and(glob("$locks/sending-*"))->toBe([])->and(answeredBeside($long, 'one')->getStatusCode())->toBe(200);
    $this->get('/sources')->assertOk();
});

it('ends what is read at a few bytes a second, and nothing that is read at all as fast as a telephone line', function () {
    foreach ([[3_900, false], [4_100, true]] as [$rate, $isOn]) {
        $second = 0.0;
        $reader = new SlowReader(function () use (&$second): float {
            return $second;
        });
        ob_start();
        for (; $second < 29.0; $second++) {
            expect($reader->write(str_repeat('x', $rate)))->toBeTrue();
        }
        $second = 40.0;
        expect($reader->write(str_repeat('x', 11 * $rate)))->toBe($isOn)->and(strlen((string) ob_get_clean()))->toBe(40 * $rate);
    }
});

it('is held by one process alone, whoever takes its file away', function () {
    $first = FileLock::take('only');
    expect($first)->not->toBeNull()->and(FileLock::take('only'))->toBeNull();
    $first->release();
    $second = FileLock::take('only');
    expect($second)->not->toBeNull()->and(FileLock::take('only'))->toBeNull();
});

it('takes away the locks of those who hung up, and none that is held', function () {
    $locks = config()->string('octavox.home').'/locks';
    $held = FileLock::take('sending-held-1');
    touch("$locks/sending-left-1");
    touch("$locks/other");
    array_map(fn (string $file) => touch($file, time() - 3600), glob("$locks/*") ?: []);
    app(Tidy::class)->tidy();
    expect(array_map(basename(...), glob("$locks/*") ?: []))->toBe(['other', 'sending-held-1'])->and($held)->not->toBeNull();
});
