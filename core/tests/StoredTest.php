<?php

declare(strict_types=1);

use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\Receipt;
use Octavox\Core\Make\Result;
use Octavox\Core\Media\PacketBorders;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Order\SpecInvalid;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlanUnreadable;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/**
 * A document with one thing wrong: each field gone, or something of another kind in its place, however deep it stands.
 *
 * @param  array<array-key, mixed>  $document
 * @return iterable<string, array<array-key, mixed>>
 */
function damaged(array $document, string $within = ''): iterable
{
    foreach ($document as $name => $value) {
        yield "$within$name gone" => array_diff_key($document, [$name => 1]);
        foreach (['null' => null, 'a list' => [], 'a text' => 'x', 'an odd text' => "z\u{0}9", 'less than nothing' => -1,
            'a fraction' => 0.5, 'yes' => true,
            'a very large number' => PHP_INT_MAX, 'a field of nothing' => ['nothing' => null]] as $what => $other) {
            yield "$within$name is $what" => [$name => $other] + $document;
        }
        foreach (is_array($value) ? damaged($value, "$within$name.") : [] as $how => $inner) {
            yield $how => array_replace($document, [$name => $inner]);
        }
    }
}

/** The stored documents of one job, with how each is read. */
function documents(): array
{
    $movie = Scratch::write('two.mp4',
        Signal::movie([Signal::pictureTrack(50), Signal::aacTrack([Signal::sweep(96_000), Signal::sweep(96_000)]),
            Signal::aacTrack([Signal::sweep(96_000)], lateTicks: 4800)]));
    $wave = Scratch::write('two.wav', Signal::wave([Signal::steps(9600, 1), Signal::sweep(9600)], SampleFormat::signed(16)));
    $plan = Planning::plan(Reader::read($wave), Spec::sound(Outputs::named('mp3'), RateControl::exactly(128), Scratch::folder(),
        shaping: new SoundSpec(layout: '1@-3+2,2', labels: ['lift'], pieces: '0.05-0.1,0.12-0.15', fadeIn: '0.01', level: 'peak:-2')));
    $video = Planning::plan(Reader::read($movie), (new OutputSpec('mkv', sounds: [new SoundSpec('2', codec: 'opus')], place: '/x')));
    $made = (new Maker)->make($plan, 'stored');
    $plain = fn (mixed $document): array => (array) json_decode((string) json_encode($document, JSON_PRESERVE_ZERO_FRACTION), true);

    return [
        'plan' => [$plain($plan->toArray()), fn (array $document) => Plan::fromArray($document)->toJson(), PlanUnreadable::class],
        'plan of a video' => [$plain($video->toArray()), fn (array $document) => Plan::fromArray($document)->toJson(),
            PlanUnreadable::class],
        'reading' => [$plain(Reader::read($movie)->toArray()),
            fn (array $document) => json_encode(Reading::fromArray($document)->toArray()),
            UnexpectedValueException::class],
        'receipt' => [$plain($made->receipt?->toArray()), fn (array $document) => json_encode(Receipt::fromArray($document)->toArray()),
            UnexpectedValueException::class],
        'result' => [$plain($made->toArray()), fn (array $document) => json_encode(Result::fromArray($plan, $document)->toArray()),
            UnexpectedValueException::class],
        'analysis' => [$plain(Octavox\Core\Analysis\Analyzer::to($opened = Octavox\Core\Reading\Opener::open($wave),
            $opened->sound()[0])->toArray()),
            fn (array $document) => json_encode(Measurements::fromArray($document)->toArray()), UnexpectedValueException::class],
        'spec' => [$plain((new OutputSpec('mkv',
            sounds: [new SoundSpec('2', 'opus', RateControl::near(96), 48_000, 16, 'mono', ['a'], '0-1', true, true,
                '1', '2', 'peak:-1', true)], tags: ['title' => 'x'], name: '{stem}', place: '/x'))->toArray()),
            fn (array $document) => json_encode(OutputSpec::fromArray($document)->toArray()), SpecInvalid::class],
        'borders' => [$plain((new PacketBorders([0, 1024, 2048], 3072))->toArray()),
            fn (array $document) => json_encode(PacketBorders::fromArray($document)->toArray()), UnexpectedValueException::class],
    ];
}

it('reads what was stored as it was, and tells of every damage in one way and without a warning', function (string $name) {
    static $documents = null;
    [$document, $read, $refusal] = ($documents ??= documents())[$name];
    expect($read($document))->toBe($read((array) json_decode((string) $read($document), true)));
    $refused = $tried = 0;
    $wrong = [];
    set_error_handler(fn (int $level, string $says): bool => throw new ErrorException($says));
    try {
        foreach (damaged($document) as $how => $broken) {
            $tried++;
            try {
                $read($broken);
            } catch (Throwable $thrown) {
                $thrown instanceof $refusal ? $refused++ : $wrong[] = $how.': '.$thrown::class.', '.$thrown->getMessage();
            }
        }
    } finally {
        restore_error_handler();
    }
    expect($wrong)->toBe([])->and($refused)->toBeGreaterThan(intdiv($tried, 4));
})->with(['plan', 'plan of a video', 'reading', 'receipt', 'result', 'analysis', 'spec', 'borders']);
