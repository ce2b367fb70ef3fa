<?php

declare(strict_types=1);

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Destination\Change;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Destination\Destinations;
use Octavox\Core\Destination\Facts;
use Octavox\Core\Destination\Fit;
use Octavox\Core\Destination\LeastChange;
use Octavox\Core\Destination\Rejection;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\SourceInspector;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

function stereoReading(string $name = 'two.wav', int $bits = 16): Reading
{
    return Reader::read(Scratch::write($name,
        Signal::wave([Signal::steps(48_000, 1), Signal::steps(48_000, 2)], SampleFormat::signed($bits))));
}

/** @return array{Fit, ?Reading} how it stands with what is asked, and what was made so */
function madeAsAsked(string $destination, Reading $source, OutputSpec $asked): array
{
    $line = new OrderLine($source);
    $fit = (new LeastChange(Destinations::find($destination), null, $asked))->fitLine($line);
    if ($fit->spec === null) {
        return [$fit, null];
    }
    $planned = SourceInspector::plan([$line], $asked->withPlace(Scratch::folder())->over($fit->spec))[0];

    return [$fit, Reader::read((new Maker)->make($planned->plans[0], bin2hex(random_bytes(4)))->path)];
}

it('does what is asked besides, and what is made is accepted all the same',
    function (string $destination, OutputSpec $asked, Change $change) {
        [$fit, $made] = madeAsAsked($destination, stereoReading(), $asked);
        expect($fit->change)->toBe($change)->and($made)->not->toBeNull();
        $loud = Destinations::find($destination)->limits->mostLufs === null ? null
            : Analyzer::to($opened = Opener::open($made->path, null), $opened->sound()[0]);
        expect(array_map(fn (Rejection $one): string => $one->says, Destinations::find($destination)
            ->refuses(Facts::ofReading($made, $loud))))->toBe([]);
    })->with([
        'nothing' => ['cutting-uncompressed', new OutputSpec, Change::None],
        'another name' => ['cutting-uncompressed', new OutputSpec(name: '{stem} x'), Change::None],
        'other tags' => ['cutting-uncompressed', new OutputSpec(tags: ['title' => 'x']), Change::None],
        'mono' => ['cutting-uncompressed', new OutputSpec(sounds: [new SoundSpec(layout: 'mono')]), Change::Remake],
        'mono elsewhere' => ['editor-aiff', new OutputSpec(sounds: [new SoundSpec(layout: 'mono')]), Change::Remake],
        'a piece' => ['cutting-uncompressed', new OutputSpec(sounds: [new SoundSpec(pieces: '0-0.5')]), Change::None],
        'another depth' => ['editor-aiff', new OutputSpec(sounds: [new SoundSpec(bitDepth: 24)]), Change::Remake],
    ]);

it('says impossible where what is asked would be refused', function (string $destination, OutputSpec $asked, string $says) {
    [$fit] = madeAsAsked($destination, stereoReading(), $asked);
    expect($fit->change)->toBe(Change::Impossible)->and($fit->why())->toContain($says);
})->with([
    ['cutting-uncompressed', new OutputSpec('mp3'), 'MP3 has no bit depth'], ['web-page', new OutputSpec('flac'), 'FLAC'],
    ['hold-music', new OutputSpec(sounds: [new SoundSpec(rate: 48_000)]), '48,000'],
    ['podcast-host', new OutputSpec(tags: ['title' => 'x']), 'artist'],
]);

it('takes tags that somebody adds for those that a destination wants', function () {
    $wants = Destination::fromArray(['version' => 1, 'name' => 'x', 'title' => 'x',
        'accepts' => [['containers' => ['flac'], 'codecs' => ['flac']]],
        'limits' => ['tags' => ['title', 'artist']], 'spec' => ['version' => 1, 'container' => 'flac']]);
    $of = fn (OutputSpec $asked): Change => (new LeastChange($wants, null, $asked))->fitLine(new OrderLine(stereoReading()))->change;
    expect($of(new OutputSpec))->toBe(Change::Impossible)->and($of(new OutputSpec(tags: ['title' => 'x'])))->toBe(Change::Impossible)
        ->and($of(new OutputSpec(tags: ['title' => 'x', 'artist' => 'y'])))->toBe(Change::Remake);
});

it('tells why no lesser change would do', function (string $destination, string $name, Change $change, string $why) {
    $path = Scratch::write($name, match ($name) {
        'a.mp4' => Signal::movie([Signal::pictureTrack(30), Signal::aacTrack([Signal::sweep(48_000)])]),
        default => Signal::wave([Signal::steps(48_000, 1)], SampleFormat::signed(16)),
    });
    $fit = (new LeastChange(Destinations::find($destination)))->fit(Reader::read($path));
    expect([$fit->change, $fit->why()])->toBe([$change, $why]);
})->with([
    ['cutting-uncompressed', 'a.wav', Change::None, ''],
    ['sketchpad', 'a.mp4', Change::Remux,
        'A plain copy would not do: It is MP4; what is accepted is M4A. It has a picture; only sound alone is accepted. '
        .'Its sound is kept.'],
    ['editor-aiff', 'a.mp4', Change::Remake,
        'Another container would not do: It has a picture; only sound alone is accepted. Its sound is AAC-LC; what is accepted is PCM.'],
]);

it('refuses a destination that contradicts itself', function (array $change, string $says) {
    $document = array_replace_recursive(['version' => 1, 'name' => 'x', 'title' => 'x',
        'accepts' => [['containers' => ['mp3'], 'codecs' => ['mp3']]],
        'spec' => ['version' => 1, 'container' => 'mp3']], $change);
    expect(fn () => Destination::fromArray($document))->toThrow(DestinationInvalid::class, $says);
})->with([
    [['spec' => ['container' => 'wav']], 'spec.container'],
    [['spec_with_picture' => ['version' => 1, 'container' => 'mov']], 'spec_with_picture.container'],
    [['accepts' => [['least_kbps' => 256, 'most_kbps' => 128]]], 'least_kbps'],
]);

it('finds the same with and without what is asked of an order of many', function () {
    // As the sheet does it: what is asked lies over what was found, and all lines are planned together.
    $destination = Destinations::find('radio-desk');
    $lines = $specs = [];
    foreach (['one.wav', 'one.wav', 'two.wav'] as $number => $name) {
        $reading = stereoReading($name, $number === 2 ? 24 : 16);
        $fit = (new LeastChange($destination, null, new OutputSpec(name: '{number} {stem}')))->fitLine(new OrderLine($reading));
        $lines[] = new OrderLine($reading, (new OutputSpec(name: '{number} {stem}', place: '/x'))
            ->over($fit->spec ?? new OutputSpec('wav')));
        $specs[] = $fit->spec;
    }
    $names = array_map(fn ($line): string => $line->plans[0]->name() ?? '', OrderPlanner::plan($lines, new OutputSpec));
    expect($names)->toBe(['1 one.wav', '2 one.wav', '3 two.wav'])->and($specs[0])->toEqual($specs[1]);
});

it('takes layouts by their names, and folds where its own is not among them',
    function (array $layouts, int $channels, Change $change, string $made) {
        $destination = Destination::fromArray(['version' => 1, 'name' => 'x', 'title' => 'x',
            'accepts' => [['containers' => ['wav'], 'codecs' => ['pcm'],
                'layouts' => $layouts]], 'spec' => ['version' => 1, 'container' => 'wav']]);
        $path = Scratch::write('some.wav', Signal::wave(array_map(fn (int $seed): array => Signal::steps(4800, $seed), range(1, $channels)),
            SampleFormat::signed(16)));
        $fit = (new LeastChange($destination))->fit($reading = Reader::read($path));
        $plan = OrderPlanner::plan([new OrderLine($reading)], ($fit->spec ?? new OutputSpec('wav'))->withPlace('/x'))[0]->plans[0];
        expect([$fit->change, $plan->sounds[0]->audio->layout->name()])->toBe([$change, $made])
            ->and(implode(' ', array_map(fn (Rejection $one): string => $one->rule->value, $fit->violations)))
            ->toBe($change === Change::None ? '' : 'layout');
    })->with([
        [['mono', 'stereo'], 2, Change::None, 'stereo'], [['mono'], 2, Change::Remake, 'mono'], [['stereo'], 1, Change::Remake, 'stereo'],
        [['stereo', '6 channels'], 6, Change::None, '6 channels'], [['mono', 'stereo'], 6, Change::Remake, 'stereo'],
    ]);

it('cleans tags for a destination that chokes on signs, and names in the folders that were asked for', function () {
    $destination = Destination::fromArray(['version' => 1, 'name' => 'x', 'title' => 'x',
        'accepts' => [['containers' => ['flac'], 'codecs' => ['flac']]],
        'limits' => ['plain_tags' => true, 'plain_name' => true, 'tags' => ['title']], 'spec' => ['version' => 1, 'container' => 'flac']]);
    $asked = new OutputSpec(tags: ['title' => "Lift \u{1F6A4}", 'album' => 'Rushes'], name: '{album}/é {stem}');
    $line = new OrderLine(stereoReading());
    $fit = (new LeastChange($destination, null, $asked))->fitLine($line);
    $plan = OrderPlanner::plan([$line], $asked->withName($fit->spec?->name)->withPlace('/x')
        ->over($fit->spec ?? new OutputSpec))[0]->plans[0];
    expect($fit->change)->toBe(Change::Remake)->and($plan->path())->toBe('/x/Rushes/two.flac')
        ->and($plan->tags->values()['title'])->toBe('Lift')
        ->and($destination->refuses(Facts::ofPlan($plan, $line->source)))->toBe([]);
});
