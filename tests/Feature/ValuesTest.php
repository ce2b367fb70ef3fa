<?php

declare(strict_types=1);

use App\Files\MediaType;
use App\Lists\Humanize;
use App\Lists\LineNumbers;
use App\Orders\Values\DraftInput;
use App\Orders\Values\QualityNumbers;
use App\Orders\Values\SpecForm;
use App\Settings\Values\TrustedHosts;
use App\Sources\Values\UploadLabel;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\Quality;
use Octavox\Core\Order\SoundSpec;

it('writes numbers as people read them', function (string $written, string $wanted) {
    expect($written)->toBe($wanted);
})->with([
    [Humanize::bytes(0), '0 B'], [Humanize::bytes(999), '999 B'], [Humanize::bytes(1000), '1.0 kB'], [Humanize::bytes(9949), '9.9 kB'],
    [Humanize::bytes(10_500), '11 kB'], [Humanize::bytes(1_234_567), '1.2 MB'], [Humanize::bytes(123_456_789), '123 MB'],
    [Humanize::bytes(11_400_000_000), '11.40 GB'],
    [Humanize::clock(null), '–'], [Humanize::clock(0), '0:00.0'], [Humanize::clock(9.96), '0:10.0'], [Humanize::clock(59.94), '0:59.9'],
    [Humanize::clock(59.96), '1:00'], [Humanize::clock(3599.4), '59:59'], [Humanize::clock(3599.6), '1:00:00'],
    [Humanize::clock(36_061), '10:01:01'],
    [Humanize::rate(null), ''], [Humanize::rate(48_000), '48 kHz'], [Humanize::rate(44_100), '44.1 kHz'],
    [Humanize::rate(11_025), '11.025 kHz'],
    [Humanize::against(0, 10), ''], [Humanize::against(10, 0), ''], [Humanize::against(100, 101), 'same size'],
    [Humanize::against(960, 100), '9.6 × larger'], [Humanize::against(16_000, 1000), '16 × larger'],
    [Humanize::against(100, 250), '2.5 × smaller'],
    [Humanize::against(10, 250), '25 × smaller'],
    [Humanize::left(null), ''], [Humanize::left(0.4), 'a moment left'], [Humanize::left(61.2), '1:02 left'],
    [Humanize::decibels(-1.04), '-1.0 dBFS'], [Humanize::decibels(null), 'silence'], [Humanize::decibels('-3', ''), '-3.0'],
    [Humanize::language('cym'), 'Welsh'], [Humanize::language('qaa'), 'qaa'],
]);

/** @param  array<string, mixed>  $fields */
function filledForm(array $fields, OutputSpec $before = new OutputSpec): SpecForm
{
    return SpecForm::of($before)->filled($fields);
}

it('writes everything that was filled in as fields, and makes the same of them again', function (array $fields, OutputSpec $spec) {
    $form = filledForm($fields);
    $again = filledForm($form->query());
    expect($form->spec)->toEqual($spec)->and($again->spec)->toEqual($spec)->and($again->query())->toBe($form->query());
})->with([
    [['format' => 'wav'], new OutputSpec('wav')],
    [['format' => 'wav', 'bits' => '24', 'rate' => '48000', 'length' => 'picture'],
        new OutputSpec('wav', sounds: [new SoundSpec(rate: 48_000, bitDepth: 24)], length: Length::picture())],
    [['format' => 'mp3', 'quality' => 'podcast', 'layout' => 'mono', 'name' => '{stem} for air', 'existing' => 'replace'],
        new OutputSpec('mp3', sounds: [new SoundSpec(rateControl: Quality::Podcast->rateControl(), layout: 'mono')], name: '{stem} for air',
            ifExists: IfExists::Replace)],
    [['format' => 'flac', 'layout' => 'split', 'labels' => 'lav,boom', 'fade_in' => '0.5', 'fade_out' => '1',
        'apart' => '1', 'exact' => '1'],
        new OutputSpec('flac', sounds: [new SoundSpec(layout: 'split', labels: ['lav', 'boom'], separate: true, exact: true, fadeIn: '0.5',
            fadeOut: '1')])],
    [['format' => 'wav', 'level_kind' => 'lufs', 'level_value' => '−16,5', 'level_ceiling' => '-2', 'together' => '1'],
        new OutputSpec('wav', sounds: [new SoundSpec(level: 'lufs:-16.5:-2', together: true)])],
    [['format' => 'wav', 'level_kind' => 'peak', 'level_value' => ''], new OutputSpec('wav', sounds: [new SoundSpec(level: 'peak:-1')])],
    [['format' => 'mov', 'sound' => 'wav', 'track' => 'cym'], new OutputSpec('mov', sounds: [new SoundSpec('cym', 'wav')])],
    [['format' => 'wav', 'track' => 'joined', 'layout' => '1@-3+2@-3,1,-2'],
        new OutputSpec('wav', sounds: [new SoundSpec('joined', layout: '1@-3+2@-3,1,-2')])],
]);

it('takes nonsense for what was not filled in', function (array $fields) {
    expect(filledForm(['format' => 'wav'] + $fields)->spec)->toEqual(new OutputSpec('wav'));
})->with([
    [['bits' => '17']], [['rate' => '1']], [['rate' => ['48000']]], [['layout' => 'everywhere']], [['track' => '1;drop']],
    [['quality' => 'best']],
    [['length' => 'long']], [['existing' => 'burn']], [['pieces' => 'ALL!']], [['pieces' => ['0-1']]], [['quality' => 'kbps:192']],
    [['sound' => 'mp3']],
    [['level_kind' => 'none', 'level' => 'peak:-1']], [['apart' => 'yes']], [['labels' => '']], [['name' => '{stem}']],
    [["\u{202E}" => 'x']],
]);

it('fills in anew only what is given', function (array $fields, OutputSpec $spec) {
    $before = new OutputSpec('mp3',
        sounds: [new SoundSpec(rateControl: Quality::Music->rateControl(), layout: 'mono', level: 'lufs:-16:-2')],
        name: '{title}', place: '/x', tags: ['title' => 'x']);
    expect(filledForm($fields, $before)->spec)->toEqual($spec->over(new OutputSpec(name: '{title}', place: '/x', tags: ['title' => 'x'])));
})->with([
    [[], new OutputSpec('mp3', sounds: [new SoundSpec(rateControl: Quality::Music->rateControl(), layout: 'mono', level: 'lufs:-16:-2')])],
    [['layout' => ''], new OutputSpec('mp3', sounds: [new SoundSpec(rateControl: Quality::Music->rateControl(), level: 'lufs:-16:-2')])],
    [['quality' => 'kbps:96', 'layout' => 'asis'],
        new OutputSpec('mp3', sounds: [new SoundSpec(rateControl: RateControl::near(96), level: 'lufs:-16:-2')])],
    [['quality' => 'variable:4'],
        new OutputSpec('mp3', sounds: [new SoundSpec(rateControl: RateControl::variable(4), layout: 'mono', level: 'lufs:-16:-2')])],
    [['format' => 'flac'], new OutputSpec('flac', sounds: [new SoundSpec(layout: 'mono', level: 'lufs:-16:-2')])],
    [['level_value' => '-18'],
        new OutputSpec('mp3', sounds: [new SoundSpec(rateControl: Quality::Music->rateControl(), layout: 'mono', level: 'lufs:-18:-2')])],
    [['level_kind' => 'peak'],
        new OutputSpec('mp3', sounds: [new SoundSpec(rateControl: Quality::Music->rateControl(), layout: 'mono', level: 'peak:-1')])],
    [['level_kind' => 'none'], new OutputSpec('mp3', sounds: [new SoundSpec(rateControl: Quality::Music->rateControl(), layout: 'mono')])],
    [['rate' => '8000'],
        new OutputSpec('mp3',
            sounds: [new SoundSpec(rateControl: Quality::Music->rateControl(), rate: 8000, layout: 'mono', level: 'lufs:-16:-2')])],
]);

it('fills in what an encoder is told, as far as the format has it', function () {
    $form = filledForm(['format' => 'mp3', 'quality' => 'kbps:128', 'held' => 'average', 'stereo' => 'separate', 'checksums' => '1',
        'compression' => '3', 'dither' => 'off']);
    expect($form->spec)->toEqual(new OutputSpec('mp3', sounds: [new SoundSpec(rateControl: RateControl::near(128)->held(RateMode::Average),
        stereo: StereoCoding::Separate, checksums: true)]))
        ->and($form->qualityLabel())->toBe('talk and music on average')
        ->and(SpecForm::of($form->spec)->filled(['quality' => 'kbps:96'])->sound()->rateControl)
        ->toEqual(RateControl::near(96)->held(RateMode::Average))
        ->and(SpecForm::of($form->spec)->filled(['format' => 'flac', 'compression' => '8', 'dither' => 'off'])->spec)
        ->toEqual(new OutputSpec('flac', sounds: [new SoundSpec(compression: 8, dither: false)]))
        ->and(SpecForm::of($form->spec)->filled(['format' => 'vorbis', 'held' => 'constant'])->sound()->rateControl?->mode)->toBeNull();
});

it('fills in a length by number, and keeps the last that can be read', function () {
    $form = filledForm(['format' => 'wav', 'length' => 'time']);
    expect($form->length()->value)->toBe('0:30')
        ->and($form->filled(['length_time' => '1:02.5'])->length()->value)->toBe('1:02.5')
        ->and($form->filled(['length_time' => 'long'])->length()->value)->toBe('0:30')
        ->and($form->filled(['rate' => '44100'])->length()->value)->toBe('0:30')
        ->and($form->filled(['length' => 'sound'])->spec->length)->toBeNull()
        ->and($form->summary())->toBe('WAV, 0:30 long');
});

it('takes sources in any writing, each once and in their order', function (mixed $written, array $sources) {
    expect(DraftInput::of(['sources' => $written])->sources)->toBe($sources)->and(LineNumbers::read($written))->toBe($sources);
})->with([
    ['3,1,2', [3, 1, 2]], ['3,3,3', [3]], ['', []], ['0,-4,x', []], [['5', '6'], [5, 6]], [['5', ['6']], [5]], [7, [7]], ['1, 2', [1, 2]],
    ['9999999999999999999', [PHP_INT_MAX]],
]);

it('names an order in a line', function (array $fields, string $summary) {
    expect(filledForm($fields)->summary())->toBe($summary);
})->with([
    [['format' => 'wav'], 'WAV'], [['format' => 'wav', 'bits' => '24', 'rate' => '44100'], 'WAV, 24-bit, 44.1 kHz'],
    [['format' => 'mp3', 'quality' => 'music', 'layout' => 'mono'], 'MP3, concert, mono of all'],
    [['format' => 'flac', 'track' => 'all', 'pieces' => '0-1'], 'FLAC, cut, all sound tracks'],
    [['format' => 'wav', 'level_kind' => 'gain', 'level_value' => '3', 'length' => 'picture'], 'WAV, +3.0 dB, as long as the picture'],
    [['format' => 'wav', 'track' => '2', 'layout' => '2,1'], 'WAV, channels 2,1, track 2'],
]);

it('tells of every quality what it sets, of every format that has it', function () {
    foreach (Outputs::all() as $format) {
        $capabilities = $format->capabilities();
        foreach ($capabilities->kbps === [] ? [] : Quality::offered($capabilities) as $quality) {
            $says = QualityNumbers::say($quality, $format);
            expect($says)->toMatch('/\d/')->not->toContain(' 0 kbit');
            if ($quality->rateControl() !== null && $quality !== Quality::Breathing) {
                // What is said is a bit rate that the format has.
                expect(in_array((int) $says, $capabilities->kbps, true))->toBeTrue($format->name().': '.$says);
            }
        }
    }
    expect(Quality::of(Quality::Podcast->rateControl()))->toBe(Quality::Podcast)->and(Quality::of(null))->toBe(Quality::Least);
});

it('knows its own names only', function (string $host, bool $isOwn) {
    expect(TrustedHosts::fromSettings('Lift-House.example, canal.test', 8080)->host($host))->toBe($isOwn);
})->with([
    ['localhost:8080', true], ['127.0.0.1:8080', true], ['[::1]:8080', true], ['LOCALHOST:8080', true], ['lift-house.example', true],
    ['canal.test:9', true], ['localhost', false], ['localhost:80', false], ['127.0.0.2:8080', false], ['elsewhere.example:8080', false],
    ['localhost.elsewhere.example:8080', false], ['', false], ['localhost:8080@elsewhere.example', false],
    ["localhost:8080\r\nX: y", false],
    ['local host:8080', false], ['[::1]:808000', false],
]);

it('knows pages of its own', function (string $origin, bool $isOwn) {
    expect(TrustedHosts::fromSettings('', 8080)->origin($origin))->toBe($isOwn);
})->with([
    ['http://localhost:8080', true], ['https://localhost:8080', true], ['http://localhost', false], ['null', false], ['file://', false],
    ['http://elsewhere.example', false], ['ftp://localhost:8080', false], ['http://localhost:8080/x', false],
]);

it('tells browsers of every format what it is', function () {
    foreach (Outputs::all() as $format) {
        expect(MediaType::name($format->name(), false))->toMatch('#^(audio/[a-z0-9]+|application/octet-stream)$#');
    }
    foreach (VideoOutputs::all() as $format) {
        expect(MediaType::name($format->name(), true))->toStartWith('video/')->and(MediaType::name($format->name(), false))
            ->toStartWith('audio/');
    }
});

it('reads what an upload says of its name and folder', function (string $name, string $path, string $wanted, string $folder) {
    $label = UploadLabel::parse('filename '.base64_encode($name).',path '.base64_encode($path));
    expect([$label->name, $label->folder])->toBe([$wanted, $folder]);
})->with([
    ['lift.wav', '', 'lift.wav', ''], ['lift.wav', 'Day one/lift.wav', 'lift.wav', 'Day one'], ['a/b/c.wav', 'a/b/c.wav', 'c.wav', 'a/b'],
    ['..\\..\\evil.wav', '..\\..\\evil.wav', 'evil.wav', ''], ["new\nline.wav", '', 'newline.wav', ''], ['', '', 'untitled', ''],
    [str_repeat('é', 200).'.wav', '', str_repeat('é', 123).'.wav', ''], ['lift.wav', '/etc/./x/../lift.wav', 'lift.wav', 'etc/x'],
    ["bad\xFF.wav", '', 'bad?.wav', ''],
]);

it('reads an upload’s label without a name, or of nonsense', function (string $metadata) {
    expect(UploadLabel::parse($metadata)->name)->toBe('untitled');
})->with(['', 'filename', 'filename !!!', 'path '.base64_encode('x/y'), ',,,', 'filename '.base64_encode('   ')]);
