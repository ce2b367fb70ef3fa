<?php

declare(strict_types=1);

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Codec\EnoughRate;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Destination\Acceptance;
use Octavox\Core\Destination\Change;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Destination\Destinations;
use Octavox\Core\Destination\Facts;
use Octavox\Core\Destination\LeastChange;
use Octavox\Core\Destination\Rejection;
use Octavox\Core\Failure;
use Octavox\Core\Make\FitInspector;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\SourceInspector;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\SoundPlan;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Broadcast;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Testing\WriterTrack;
use Octavox\Core\Tests\Support\SchemaCheck;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return array<string, Reading> sources as people bring them */
function broughtIn(): array
{
    static $readings = null;
    if ($readings !== null) {
        return $readings;
    }
    $tone = fn (int $frames): array => Signal::sweep($frames, 0.4);
    $whole = Tags::none()->with(TagField::Title, 'Lift')->with(TagField::Artist, 'Wrenfield')
        ->withCover(new Cover('image/jpeg', "\xFF\xD8\xFF\xE0".str_repeat('c', 400)));
    $aac = fn (int $rate, int $kbps, int $channels): WriterTrack => (function () use ($rate, $kbps, $channels, $tone): WriterTrack {
        [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, $rate, Layout::undeclared($channels)),
            RateControl::exactly($kbps),
            array_fill(0, $channels, $tone(24_000)));

        return WriterTrack::sound($encoder->audio(), $packets, $encoder->delay(), 24_000);
    })();
    $files = [
        'mono.wav' => Signal::wave([$tone(22_050)], SampleFormat::signed(16), 44_100),
        'stereo.wav' => Signal::wave([$tone(24_000), $tone(24_000)], SampleFormat::signed(24)),
        'high.wav' => Signal::wave([$tone(48_000)], SampleFormat::float(32), 192_000),
        'six.wav' => Signal::wave(array_fill(0, 6, $tone(24_000)), SampleFormat::signed(16)),
        'phone.wav' => Signal::wave([$tone(8000)], SampleFormat::signed(16), 8000),
        'loud.mp3' => Signal::mp3([$tone(44_100)], RateControl::exactly(320), 44_100),
        'episode.mp3' => Signal::mp3([$tone(48_000), $tone(48_000)], RateControl::exactly(128), 48_000, $whole),
        'quiet.mp3' => Signal::mp3([Signal::sweep(48_000, 0.02), Signal::sweep(48_000, 0.02)], RateControl::exactly(128), 48_000, $whole),
        'soft.wav' => Signal::wave([Signal::sweep(48_000, 0.01)], SampleFormat::signed(24)),
        'desk.wav' => Signal::wave([Signal::sweep(48_000, 0.01)], SampleFormat::signed(24), tags: Tags::none()
            ->withBroadcast(new Broadcast)),
        'late.mp4' => Signal::movie([Signal::pictureTrack(13), $aac(48_000, 128, 2)], indexFirst: false),
        'varies.mp3' => Signal::mp3([$tone(48_000), $tone(48_000)], RateControl::variable(4), 48_000, $whole),
        'recorder.m4a' => Signal::movie([$aac(48_000, 64, 1)], brand: 'M4A ', tags: $whole),
        'clip.mp4' => Signal::movie([Signal::pictureTrack(13), $aac(48_000, 128, 2)]),
        'camera.mov' => Signal::movie([Signal::pictureTrack(13),
            Signal::pcmTrack([$tone(24_000)], SampleFormat::signed(16, true))], brand: 'qt  '),
        'silent.mp4' => Signal::movie([Signal::pictureTrack(13)]),
        "Môr \u{1F6A4} {title} ".str_repeat('long ', 30).'.wav' => Signal::wave([$tone(24_000)], SampleFormat::signed(16)),
    ];
    $readings = [];
    foreach ($files as $name => $bytes) {
        $readings[$name] = Reader::read(Scratch::write($name, $bytes));
    }

    return $readings;
}

it('ships destinations that follow their schema and come back as they were written', function () {
    $schema = (array) json_decode((string) file_get_contents(__DIR__.'/../schema/destination.json'), true);
    foreach (glob(__DIR__.'/../destinations/*.json') as $path) {
        $document = json_decode((string) file_get_contents($path), true);
        $read = Destination::fromArray($document);
        expect(SchemaCheck::breaches($schema, $document))->toBe([], $path)->and($read->name)->toBe(basename($path, '.json'))
            ->and(Destination::fromArray((array) json_decode((string) json_encode($read->toArray()), true)))->toEqual($read)
            ->and(json_decode((string) json_encode($read->toArray()), true))->toEqual($document)->and($read->note)->toMatch('/\.$/');
    }
    expect(Destinations::shipped())->toHaveCount(12)->and(array_keys($schema['properties']))->toBe(Destination::FIELDS);
});

it('accepts, re-wraps, remakes or refuses as the destination has it', function (string $destination, array $changes) {
    $found = array_map(fn (Reading $one): string => FitInspector::inspect($one, Destinations::find($destination))
        ->change->value, broughtIn());
    foreach ($changes as $name => $change) {
        expect($found[$name])->toBe($change, "$name for $destination");
    }
})->with([
    ['cutting-uncompressed', ['mono.wav' => 'none', 'camera.mov' => 'none', 'clip.mp4' => 'remake', 'loud.mp3' => 'remake',
        'high.wav' => 'remake', 'silent.mp4' => 'impossible']],
    ['cutting-no-opus',
        ['mono.wav' => 'none', 'clip.mp4' => 'none', 'recorder.m4a' => 'none', 'episode.mp3' => 'none', 'six.wav' => 'none']],
    ['sketchpad', ['mono.wav' => 'none', 'six.wav' => 'remake', 'recorder.m4a' => 'none', 'clip.mp4' => 'remux', 'phone.wav' => 'remake',
        'camera.mov' => 'remux']],
    ['editor-aiff', ['camera.mov' => 'remux', 'mono.wav' => 'remake', 'phone.wav' => 'remake']],
    ['podcast-host', ['episode.mp3' => 'remake', 'quiet.mp3' => 'none', 'varies.mp3' => 'remake', 'recorder.m4a' => 'remake',
        'mono.wav' => 'impossible',
        'loud.mp3' => 'impossible']],
    ['radio-desk', ['mono.wav' => 'remake', 'stereo.wav' => 'remake', 'soft.wav' => 'remux', 'desk.wav' => 'none', 'six.wav' => 'remake',
        'loud.mp3' => 'remake', 'clip.mp4' => 'remake']],
    ['hold-music', ['phone.wav' => 'remake', 'mono.wav' => 'remake', 'six.wav' => 'remake', 'clip.mp4' => 'remake']],
    ['web-page', ['clip.mp4' => 'none', 'late.mp4' => 'remux', 'episode.mp3' => 'none', 'camera.mov' => 'remake', 'mono.wav' => 'remake']],
    ['pocket-player', ['loud.mp3' => 'none', 'varies.mp3' => 'none', 'recorder.m4a' => 'remake', 'mono.wav' => 'remake']],
    ['living-room', ['clip.mp4' => 'none', 'six.wav' => 'remake', 'episode.mp3' => 'none', 'high.wav' => 'remake']],
    ['archive', ['mono.wav' => 'none', 'six.wav' => 'none', 'camera.mov' => 'remake', 'loud.mp3' => 'remake']],
]);

it('makes of anything only what the destination then accepts', function (string $destination) {
    $change = fn (Reading $one) => FitInspector::inspect($one, Destinations::find($destination));
    $made = 0;
    foreach (broughtIn() as $name => $reading) {
        $fit = $change($reading);
        expect($fit->spec === null)->toBe($fit->change === Change::Impossible && ! $fit->isAccepted(), $name);
        if ($fit->spec === null) {
            expect(array_map(fn (Rejection $one): string => $one->says,
                [...$fit->violations, ...$fit->remaining]))->each->toMatch('/^[A-Z].*\.$/');

            continue;
        }
        $planned = SourceInspector::plan([new OrderLine($reading, $fit->spec)], new OutputSpec(place: Scratch::folder()))[0];
        $result = (new Maker)->make($planned->plans[0], 'fit');
        $again = $change(Reader::read($result->path));
        expect(array_map(fn (Rejection $one): string => $one->says, $again->violations))->toBe([], "$name for $destination")
            ->and($again->change)->toBe(Change::None)->and($result->plan->isKept())->toBe($fit->change !== Change::Remake, $name);
        $made++;
    }
    expect($made)->toBeGreaterThan(2);
})->with(fn (): array => array_keys(Destinations::shipped()));

it('says of a result before it is made what it is when it is made', function () {
    foreach (Outputs::all() as $format) {
        if (! $format->capabilities()->makes || $format->capabilities()->headerless) {
            continue;
        }
        $reading = broughtIn()['phone.wav'];
        $plan = SourceInspector::plan([new OrderLine($reading)],
            new OutputSpec($format->name(), place: Scratch::folder()))[0]->plans[0] ?? null;
        $planned = $plan === null ? null : Facts::ofPlan($plan, $reading);
        $made = $plan === null ? null : Facts::ofReading(Reader::read((new Maker)->make($plan, 'facts')->path));
        expect([$made?->container, $made?->sounds[0]->codec, $made?->sounds[0]->rate, $made?->name])
            ->toBe([$planned?->container, $planned?->sounds[0]->codec, $planned?->sounds[0]->rate, $planned?->name], $format->name());
    }
});

it('does not take for quiet enough what nobody has measured', function () {
    $soft = broughtIn()['soft.wav'];
    $radio = Destinations::find('radio-desk');
    $unknown = (new LeastChange($radio))->fit($soft);
    expect($unknown->change)->toBe(Change::Remake)->and($unknown->violations[0]->says)->toContain('is not known')
        ->and(FitInspector::inspect($soft, $radio)->change)->toBe(Change::Remux)
        ->and(FitInspector::inspect(broughtIn()['stereo.wav'], $radio)->violations[0]->says)
        ->toMatch('/^Its loudness is -\d+\.\d LUFS; at most -22 are accepted\.$/');
});

it('does not measure again what was measured already', function () {
    $path = Scratch::write('heard.wav', Signal::wave([Signal::sweep(48_000, 0.01)], SampleFormat::signed(24)));
    $opened = Opener::open($path);
    [$reading, $measured] = [Reader::read($path), Analyzer::to($opened, $opened->sound()[0])];
    unlink($path);
    expect(FitInspector::inspect($reading, Destinations::find('radio-desk'), $measured)->change)->toBe(Change::Remux)
        ->and(fn () => FitInspector::inspect($reading, Destinations::find('radio-desk')))->toThrow(Failure::class);
});

it('never raises the bit rate of what was lossy already', function () {
    $fit = (new LeastChange(Destinations::find('pocket-player')))->fit($reading = broughtIn()['recorder.m4a']);
    $track = $reading->sound()[0];
    $kbps = (int) $fit->spec?->sounds[0]->rateControl?->kbps;
    // Of AAC it becomes MP3: the next step above what that needs.
    expect($kbps)->toBeGreaterThanOrEqual(EnoughRate::kbps($track->sound, (float) $track->kbps(), new AudioFormat(Codec::Mp3, 48_000,
        $track->sound->layout)))
        ->and($kbps)->toBeLessThanOrEqual(192)->and(in_array($kbps, Outputs::named('mp3')->capabilities()->kbps, true))->toBeTrue();
    $again = (new LeastChange(Destination::fromArray(array_replace(Destinations::find('pocket-player')->toArray(), ['name' => 'x',
        'accepts' => [['containers' => ['mp3'], 'codecs' => ['mp3'], 'most_kbps' => 64]]]))))
        ->fit(Reader::read((string) (new Maker)->make(Planning::plan($reading, Spec::sound(Outputs::named('mp3'),
            RateControl::exactly(96), Scratch::folder())), 'again')->path));
    expect($again->spec?->sounds[0]->rateControl?->kbps)->toBe(64);
    $fit = (new LeastChange(Destinations::find('pocket-player')))->fit(broughtIn()['mono.wav']);
    expect($fit->spec?->sounds[0]->rateControl?->kbps)->toBe(192)->and($fit->spec?->sounds[0]->rate)->toBeNull();
});

it('chooses the rate and the depth that lose least', function (array $rates, int $rate, int $chosen) {
    $kind = Acceptance::fromArray(['containers' => ['wav'], 'codecs' => ['pcm'], 'rates' => $rates, 'bit_depths' => [16, 24]], '');
    expect($kind->rateFor($rate))->toBe($chosen)->and($kind->bitDepthFor(8))->toBe(16)->and($kind->bitDepthFor(20))->toBe(24)
        ->and($kind->bitDepthFor(32))->toBe(24);
})->with([
    [[], 12_345, 12_345], [[44_100, 48_000], 44_100, 44_100], [[44_100, 48_000], 88_200, 44_100], [[44_100, 48_000], 96_000, 48_000],
    [[44_100, 48_000], 22_050, 44_100],
    [[44_100, 48_000], 8000, 48_000], [[48_000], 44_100, 48_000], [[8000], 44_100, 8000], [[48_000, 44_100, 96_000], 32_000, 48_000],
    [[11_025], 48_000, 11_025],
]);

it('refuses in a sentence a document that is no destination', function (array $change, string $says) {
    $document = (array) json_decode((string) file_get_contents(__DIR__.'/../destinations/podcast-host.json'), true);
    expect(fn () => Destination::fromArray(array_replace_recursive($document, $change)))->toThrow(DestinationInvalid::class, $says);
})->with([
    [['version' => 7], 'of version 7'], [['name' => 'Not A Word'], '“name”'], [['title' => '  '], '“title”'],
    [['colour' => 'red'], '“colour”'],
    [['accepts' => [['codecs' => 'mp3']]], '“accepts[0].codecs”'], [['accepts' => [['rates' => [0]]]], '“accepts[0].rates”'],
    [['accepts' => [['loud' => 1]]], '“accepts[0].loud”'],
    [['accepts' => [['most_channels' => 0]]], '“accepts[0].most_channels”'], [['limits' => ['most_bytes' => -5]], '“limits.most_bytes”'],
    [['limits' => ['tags' => ['zzz']]], '“limits.tags”'], [['limits' => ['most_lufs' => 3]], '“limits.most_lufs”'],
    [['spec' => ['container' => 5]], '“container”'], [['accepts' => 'all'], '“accepts”'],
]);

it('knows shipped ones by name and others by their file', function () {
    $path = Scratch::write('mine.json',
        str_replace('"archive"', '"mine"', (string) file_get_contents(__DIR__.'/../destinations/archive.json')));
    expect(Destinations::find($path)->name)->toBe('mine')->and(Destinations::find('archive')->name)->toBe('archive')
        ->and(fn () => Destinations::find('nowhere'))->toThrow(DestinationInvalid::class, 'podcast-host')
        ->and(fn () => Destinations::find(Scratch::write('broken.json', '[1, 2')))->toThrow(DestinationInvalid::class, 'no JSON object')
        ->and(fn () => Destinations::find(Scratch::write('list.json', '[]')))->toThrow(DestinationInvalid::class);
});

it('answers on the command line', function () {
    $command = escapeshellarg(dirname(__DIR__, 2).'/octavox');
    $run = function (string $words) use ($command): array {
        exec("$command $words --json 2>&1", $said, $status);

        return [$status, (array) json_decode((string) preg_replace('/^[^{]*/', '', implode("\n", $said)), true)];
    };
    [$status, $listed] = $run('destinations');
    expect($status)->toBe(0)->and(array_column($listed['destinations'], 'name'))->toContain('hold-music')->and($listed['destinations'][0])
        ->toHaveKeys(['name', 'title']);
    $wave = Scratch::write('caller.wav', Signal::wave([Signal::sweep(48_000)], SampleFormat::signed(16)));
    $into = Scratch::folder();
    [$status, $read] = $run('read '.escapeshellarg($wave).' --for hold-music');
    expect($status)->toBe(0)->and($read['sources'][0]['fit']['accepted'])->toBeFalse()
        ->and($read['sources'][0]['fit']['change'])->toBe('remake')
        ->and(array_column($read['sources'][0]['fit']['violations'], 'rule'))->toBe(['rate', 'bit-depth'])
        ->and($read['sources'][0]['fit']['violations'][0]['nearest'])->toBe([8000]);
    [$status, $made] = $run('make '.escapeshellarg($wave).' --for hold-music --into '.escapeshellarg($into));
    expect($status)->toBe(0)->and($made['results'][0]['rate'])->toBe(8000);
    [, $again] = $run('read '.escapeshellarg($made['results'][0]['path']).' --for hold-music');
    expect($again['sources'][0]['fit'])->toBe(['accepted' => true, 'change' => 'none', 'violations' => []]);
    [$status, $refused] = $run('make '.escapeshellarg($wave).' --for podcast-host --into '.escapeshellarg($into));
    expect($status)->toBe(1)->and($refused['error']['code'])->toBe('not-accepted')->and($refused['error']['message'])
        ->toContain('no cover');
    expect($run('make '.escapeshellarg($wave).' --for hold-music --rate 8000 --into '.escapeshellarg($into))[0])->toBe(2)
        ->and($run('read '.escapeshellarg($wave).' --for nowhere')[0])->toBe(1)->and($run('destinations more')[0])->toBe(2)
        ->and($run('destinations --more')[0])->toBe(2);
});

it('tells every failure of a destination with a code of its own', function () {
    expect(fn () => Destinations::find('nowhere'))->toThrow(fn (Failure $failure) => expect($failure->code())->toBe('destination-invalid'));
});

it('keeps of a video each sound track that is accepted, and remakes only the others', function () {
    $tone = fn (int $frames): array => Signal::sweep($frames, 0.3);
    $path = Scratch::write('two.mov', Signal::movie([Signal::pictureTrack(25), Signal::aacTrack([$tone(48_000), $tone(48_000)]),
        Signal::pcmTrack(array_fill(0, 6, $tone(48_000)), SampleFormat::signed(16)), Signal::aacTrack([$tone(48_000)])], brand: 'qt  '));
    $reading = Reader::read($path);
    $fit = (new LeastChange(Destinations::find('web-page')))->fit($reading);
    $plan = SourceInspector::plan([new OrderLine($reading, $fit->spec)], new OutputSpec(place: Scratch::folder()))[0]->plans[0];
    expect($fit->change)->toBe(Change::Remake)
        ->and(array_map(fn (SoundPlan $sound): bool => $sound->isKept(), $plan->sounds))->toBe([true, false, true])
        ->and($plan->sounds[1]->audio->layout->name())->toBe('stereo')->and($plan->sounds[1]->audio->codec)->toBe(Codec::Aac);
    $made = Reader::read((new Maker)->make($plan, 'tracks')->path);
    expect((new LeastChange(Destinations::find('web-page')))->fit($made)->change)->toBe(Change::None)
        ->and(Signal::packetsOf($made->path))->toBe(Signal::packetsOf($path));
});

it('holds a file against the kind that it could be, and takes none whose sound is not there', function () {
    $document = broughtIn()['recorder.m4a']->toArray();
    $says = fn (array $document): array => array_map(fn (Rejection $one): string => $one->says,
        (new LeastChange(Destinations::find('web-page')))->fit(Reading::fromArray($document))->violations);
    $alien = ['container' => 'ogg'] + $document;
    $alien['tracks'][0]['audio']['codec'] = 'vorbis';
    // Neither a picture is wanted of it, nor anything told that is none of its troubles.
    expect(implode(' ', $says($alien)))->toContain('It is OGG')->toContain('what is accepted is MP3')->not->toContain('picture');
    $document['tracks'][0]['timeline']['segments'] = [];
    $fit = (new LeastChange(Destinations::find('web-page')))->fit(Reading::fromArray($document));
    expect($fit->change)->toBe(Change::Impossible)->and($fit->why())->toContain('None of its sound is there');
    foreach (broughtIn() as $name => $reading) {
        foreach (Destinations::shipped() as $destination) {
            $why = (new LeastChange($destination))->fit($reading)->why();
            expect($why)->not->toContain('would not do: Everything')->not->toContain('would not do: Its sound is kept');
        }
    }
});
