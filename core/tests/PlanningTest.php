<?php

declare(strict_types=1);

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Analysis\ParallelAnalysis;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\SourceInspector;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\PacketBorders;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Order\IfRight;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\PictureChoice;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\EncoderChoice;
use Octavox\Core\Plan\MissingFacts;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlannedLine;
use Octavox\Core\Plan\Planner;
use Octavox\Core\Plan\PlanUnreadable;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Plan\SourceKnowledge;
use Octavox\Core\Plan\Steps\FilledSilence;
use Octavox\Core\Plan\Steps\RaisedRate;
use Octavox\Core\Plan\Violations\NoTrack;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

afterAll(fn () => Scratch::clear());

function lineOf(string $name, int $frames = 48_000, float $loudness = 0.5): OrderLine
{
    $sound = array_map(fn (float $sample): float => $loudness * $sample, Signal::sweep($frames));

    return new OrderLine(Reader::read(Scratch::write($name, Signal::wave([$sound, $sound], SampleFormat::signed(16)))));
}

/** @param  array<array-key, PlannedLine>  $planned */
function namesOf(array $planned): array
{
    return array_map(fn (Plan $plan): string => $plan->name(),
        array_merge(...array_values(array_map(fn (PlannedLine $line): array => $line->plans, $planned))));
}

function encoded(string $format, ?RateControl $rateControl = null): string
{
    $wave = Scratch::write('in.wav', Signal::wave([Signal::sweep(144_000), Signal::sweep(144_000)], SampleFormat::signed(16)));

    return (new Maker)
        ->make(Planning::plan(Reader::read($wave),
            Spec::sound(Outputs::named($format), $rateControl ?? RateControl::none(), Scratch::folder())), 'in')->path;
}

it('gives every result of an order a name of its own, whatever their case', function () {
    $lines = [lineOf('clip.wav'), lineOf('Clip.wav'), lineOf('clip 2.wav'), lineOf('other.wav')];
    $spec = new OutputSpec('flac', place: '/x');
    expect(namesOf(OrderPlanner::plan($lines, $spec)))->toBe(['clip.flac', 'Clip 2.flac', 'clip 2 2.flac', 'other.flac'])
        ->and(namesOf(OrderPlanner::plan(array_fill(0, 3, $lines[0]), $spec)))->toBe(['clip.flac', 'clip 2.flac', 'clip 3.flac'])
        ->and(namesOf(OrderPlanner::plan([$lines[0], new OrderLine($lines[1]->source, new OutputSpec(place: '/y'))], $spec)))
        ->toBe(['clip.flac', 'Clip.flac']);
});

it('fills the fields of names, of sounds as of videos', function () {
    $video = Scratch::write('tour.mp4', Signal::movie([Signal::pictureTrack(60), Signal::aacTrack([Signal::sweep(96_000)])]));
    $names = fn (string $path, OutputSpec $spec): array => namesOf(OrderPlanner::plan([new OrderLine(Reader::read($path))], $spec));
    $pattern = '{number} {title} {artist} {layout} {rate} {sound_track} {stem}';
    $tags = ['title' => 'The lift', 'artist' => 'Wrenfield'];
    expect($names($video, new OutputSpec('mov', name: $pattern, place: '/x', tags: $tags)))
        ->toBe(['1 The lift Wrenfield mono 48000 2 tour.mov'])
        ->and($names($video, new OutputSpec('wav', name: $pattern, place: '/x', tags: $tags)))
        ->toBe(['1 The lift Wrenfield mono 48000 2 tour.wav'])
        ->and($names($video, new OutputSpec('wav', name: '{title}', place: '/x')))->toBe(['untitled.wav']);
});

it('takes the same way to all tracks of a source, in a file of each or beside a picture', function () {
    $sound = fn (float $level): array => [array_map(fn (float $sample): float => $level * $sample, Signal::sweep(48_000))];
    $path = Scratch::write('three.mp4', Signal::movie([
        Signal::pictureTrack(30), Signal::aacTrack($sound(0.5)), Signal::pcmTrack($sound(0.3), SampleFormat::signed(16)),
        Signal::aacTrack($sound(0.2), language: 'ger'),
    ]));
    $plans = fn (OutputSpec $spec): array => Planning::plans(Reader::read($path), $spec->over(new OutputSpec(place: '/x')));
    $each = $plans(new OutputSpec('wav', sounds: [new SoundSpec('all')]));
    $own = $plans(new OutputSpec('mov', sounds: [
        new SoundSpec('2', layout: 'stereo', codec: 'wav', bitDepth: 24), new SoundSpec('german', codec: 'wav', rate: 8000),
        new SoundSpec('3'),
    ]))[0];
    expect(array_map(fn (Plan $plan): string => $plan->name(), $each))->toBe(['three 2.wav', 'three 3.wav', 'three 4.wav'])
        ->and(array_map(fn ($sound): array => [$sound->track, $sound->action->value, CodecModules::describe($sound->audio), $sound->audio
        ->rate,
            $sound->audio->layout->name()], $own->sounds))->toBe([
                [2, 'remade', '24-bit PCM', 48_000, 'stereo'], [4, 'remade', '16-bit PCM', 8000, 'mono'],
                [3, 'kept', '16-bit PCM', 48_000, 'mono'],
            ])
        ->and(PlanWords::steps($own)[1])->toStartWith('sound track 2: decode AAC')->toContain('write 24-bit PCM')
        ->and(PlanWords::steps($own)[2])->toStartWith('sound track 4: decode AAC')->toContain('48 kHz to 8 kHz')
        ->and(PlanWords::steps($own)[3])->toBe('sound track 3: the 16-bit PCM sound is copied untouched');
    $made = Reader::read((new Maker)->make($own->withTarget($own->target->into(Scratch::folder())), 'own')->path);
    expect(array_map(fn ($track): array => [CodecModules::describe($track->sound), $track->sound->rate, $track->sound->channels()], $made
        ->sound()))
        ->toBe([['24-bit PCM', 48_000, 2], ['16-bit PCM', 8000, 1], ['16-bit PCM', 48_000, 1]]);
});

it('leaves a picture out of a container that could keep it, and keeps it only where that can be', function () {
    $path = Scratch::write('tour.mp4', Signal::movie([Signal::pictureTrack(60), Signal::aacTrack([Signal::sweep(48_000)])]));
    $plan = fn (OutputSpec $spec): Closure => fn () => Planning::plans(Reader::read($path), $spec->over(new OutputSpec(place: '/x')));
    expect($plan(new OutputSpec('wav', PictureChoice::Keep)))
        ->toThrow(CannotPlan::class, 'WAV holds sound alone; where the picture is to be kept choose one of these: mp4, mov, mkv, webm')
        ->and($plan(new OutputSpec('mov', PictureChoice::Leave)))
        ->toThrow(CannotPlan::class, 'MOV is a kind of video; where the picture is to be left out choose one of these: wav,')
        ->and($plan(new OutputSpec))->toThrow(CannotPlan::class, 'no format called “”')
        ->and($plan(new OutputSpec('mov', length: Length::picture())))->toThrow(CannotPlan::class, 'leave the length to the sound')
        ->and($plan(new OutputSpec('mov', sounds: [new SoundSpec(codec: 'nothing')])))
        ->toThrow(CannotPlan::class, 'no format called “nothing”')
        ->and($plan(new OutputSpec('mov', sounds: [new SoundSpec(pieces: '0-1')])))->toThrow(CannotPlan::class, 'Pictures are kept whole')
        ->and($plan(new OutputSpec('mp4'))()[0]->picture->track)->toBe(1);
});

it('refuses a codec that a file of sound does not hold, and takes its own for what is meant anyhow', function () {
    $path = encoded('mp3', RateControl::exactly(128));
    $plan = fn (string $format, string $codec): Closure => fn (): array => Planning::plans(Reader::read($path),
        new OutputSpec($format, sounds: [new SoundSpec(codec: $codec)], place: '/x'));
    foreach ([['flac', 'mp3'], ['wav', 'flac'], ['mp3', 'wav'], ['mka', 'opus'], ['mp3', 'nothing']] as [$format, $codec]) {
        expect($plan($format, $codec))->toThrow(CannotPlan::class, "is not made with “{$codec}” in it");
    }
    expect($plan('mp3', 'mp3')()[0]->isKept())->toBeTrue()->and($plan('mp3', 'keep')()[0]->isKept())->toBeTrue()
        ->and($plan('mka', 'mka')()[0]->isKept())->toBeTrue()->and($plan('flac', 'flac')()[0]->isKept())->toBeFalse();
});

it('waits for what it has to know of packets, says what that is, and plans then', function () {
    $path = encoded('mp3', RateControl::exactly(128));
    $line = new OrderLine(Reader::read($path), new OutputSpec(sounds: [new SoundSpec(pieces: '1-2')]));
    $spec = new OutputSpec('mp3', place: '/x');
    $waiting = OrderPlanner::plan([$line], $spec)[0];
    expect($waiting->isWaiting())->toBeTrue()->and($waiting->plans)->toBe([])->and(array_keys($waiting->wanted->borders))->toHaveCount(1);
    $known = array_map(fn ($query): PacketBorders => new PacketBorders([$query->from - 2000, $query->from - 848, $query->from - 100],
        $query->until + 50), $waiting->wanted->borders);
    $planned = OrderPlanner::plan([$line->knowing(new SourceKnowledge($known))], $spec)[0];
    expect($planned->isWaiting())->toBeFalse()->and($planned->plans[0]->isKept())->toBeTrue()
        ->and($planned->plans[0]->sounds[0]->shape->kept->from)->toBe(array_values($waiting->wanted->borders)[0]->from - 2000);
    // Uncompressed sound and what is encoded anyway needs nothing.
    expect(OrderPlanner::plan([$line], new OutputSpec('wav', place: '/x'))[0]->isWaiting())->toBeFalse()
        ->and(OrderPlanner::plan([$line], new OutputSpec('ac3', place: '/x'))[0]->refusal)->not->toBeNull();
});

it('finds one gain for a group once all of it is analysed', function () {
    $lines = ['a' => lineOf('a.wav', loudness: 0.5), 'b' => lineOf('b.wav', loudness: 0.1), 'c' => lineOf('c.wav')];
    $spec = new OutputSpec('wav', sounds: [new SoundSpec(level: 'peak:-1', together: true)], place: '/x');
    $lines['c'] = new OrderLine($lines['c']->source, new OutputSpec(sounds: [new SoundSpec(level: '')]));
    $waiting = OrderPlanner::plan($lines, $spec);
    expect(array_map(fn (PlannedLine $line): array => array_values($line->wanted->analyses), $waiting))
        ->toBe(['a' => [1], 'b' => [1], 'c' => []])
        ->and($waiting['c']->plans[0]->isKept())->toBeTrue();
    $planned = SourceInspector::plan($lines, $spec);
    $loud = Analyzer::to($opened = Opener::open($lines['a']->source->path), $opened->sound()[0])->level()->peakDecibels();
    foreach (['a', 'b'] as $key) {
        expect($planned[$key]->plans[0]->sounds[0]->shape->level->value)->toEqualWithDelta(-1.0 - $loud, 0.02);
    }
    expect($planned['c']->plans[0]->sounds[0]->shape->level)->toBeNull();
});

it('tells of each source what stands in its way and plans the others', function () {
    $lines = [lineOf('a.wav'), new OrderLine(lineOf('b.wav')->source, new OutputSpec(sounds: [new SoundSpec('7')])), lineOf('c.wav')];
    [$first, $second, $third] = OrderPlanner::plan($lines, new OutputSpec('flac', place: '/x'));
    expect([count($first->plans), count($second->plans), count($third->plans)])->toBe([1, 0, 1])
        ->and($second->refusal)->toBeInstanceOf(CannotPlan::class)->and($second->refusal->violation())->toBeInstanceOf(NoTrack::class)
        ->and($second->refusal->violation()->nearest)->toBe([1])->and($second->refusal->path)->toBe($lines[1]->source->path);
});

it('refuses a number that a format does not have and names the nearest', function (string $format, SoundSpec $sound, array $nearest) {
    $refused = OrderPlanner::plan([lineOf('a.wav')], new OutputSpec($format, sounds: [$sound], place: '/x'))[0]->refusal;
    expect($refused)->toBeInstanceOf(CannotPlan::class)->and($refused->code())->toBe('not-offered')
        ->and($refused->violation()->toArray()['nearest'])->toBe($nearest);
    foreach ($nearest as $one) {
        expect(str_replace(',', '', $refused->getMessage()))->toContain((string) $one);
    }
})->with([
    ['mp3', new SoundSpec(rateControl: RateControl::exactly(123)), [128]], ['mp3', new SoundSpec(rate: 47_999), [44_100, 48_000]],
    ['mp3', new SoundSpec(rate: 96_000), [48_000]], ['opus', new SoundSpec(rate: 44_100), [48_000]],
    ['gsm', new SoundSpec(rate: 16_000, layout: 'mono'), [8000]],
    ['flac', new SoundSpec(bitDepth: 32), [24]], ['wav', new SoundSpec(bitDepth: 20), [16, 24]], ['mp3', new SoundSpec(bitDepth: 16), []],
    ['wav', new SoundSpec(rateControl: RateControl::exactly(64)), []], ['aac', new SoundSpec(rateControl: RateControl::variable(2)), []],
]);

it('keeps a lossy sound up to the bit rate that is asked for, with two hundredths to spare, and no further',
    function (float $factor, bool $isKept) {
        $path = encoded('mp3', RateControl::exactly(128));
        $source = Reader::read($path);
        $own = $source->sound()[0]->codedBytes / $source->sound()[0]->seconds() / 125;
        // A rate that the source is this much above.
        $stored = $source->toArray();
        $stored['tracks'][0]['bytes'] = (int) round($stored['tracks'][0]['bytes'] * $factor * 128 / $own);
        $stored['tags'] = [];
        $plan = Planning::plan(Reading::fromArray($stored), Spec::sound(Outputs::named('mp3'), RateControl::exactly(128), '/x'));
        expect($plan->isKept())->toBe($isKept);
    })->with([[1.0, true], [1.019, true], [1.021, false], [1.4, false]]);

it('never raises the bit rate of a lossy sound by itself', function () {
    $path = encoded('mp3', RateControl::exactly(96));
    // Of its own codec never more; of another what that needs: at least its floor, and a quarter more than the table says.
    $plan = Planning::plan(Reader::read($path), Spec::sound(Outputs::named('mp3'), RateControl::none(), '/x', rate: 44_100));
    expect($plan->sounds[0]->rateControl->kbps)->toBeLessThanOrEqual(98)->and($plan->warnings)->toBe([]);
    foreach (['aac' => 96, 'opus' => 72, 'vorbis' => 90, 'mp2' => 192] as $format => $kbps) {
        $plan = Planning::plan(Reader::read($path), Spec::sound(Outputs::named($format), RateControl::none(), '/x'));
        expect(abs($plan->sounds[0]->rateControl->kbps - $kbps))->toBeLessThan(3, $format)->and($plan->warnings)->toBe([])
            ->and(implode(' ', PlanWords::steps($plan)))->toContain('to lose nothing more audible');
    }
    $raised = Planning::plan(Reader::read($path), Spec::sound(Outputs::named('aac'), RateControl::near(256), '/x'));
    $warning = $raised->warnings[0]->kind;
    expect($warning instanceof RaisedRate ? $warning->kbps : 0)->toBeGreaterThan(200);
});

it('tells of silence that is filled in from ten seconds on', function (int $late, bool $isTold) {
    $path = Scratch::write('late.mp4',
        Signal::movie([Signal::pictureTrack(1000), Signal::aacTrack([Signal::sweep(48_000)], lateTicks: $late)]));
    $plan = Planning::plan(Reader::read($path), Spec::sound(Outputs::named('wav'), RateControl::none(), '/x'));
    expect(array_map(fn ($step) => $step->kind::class, $plan->warnings))->toBe($isTold ? [FilledSilence::class] : []);
})->with([[48_000 * 9, false], [48_000 * 11, true]]);

it('leaves out what is right already only where that is asked for', function () {
    $mp3 = encoded('mp3', RateControl::exactly(128));
    $plans = fn (string $path, OutputSpec $spec): array => Planning::plans(Reader::read($path),
        $spec->over(new OutputSpec(place: '/x', ifRight: IfRight::Leave)));
    expect($plans($mp3, new OutputSpec('mp3')))->toBe([])
        ->and($plans($mp3, new OutputSpec('mp3', ifRight: IfRight::Copy)))->toHaveCount(1)
        ->and($plans($mp3, new OutputSpec('wav')))->toHaveCount(1)
        ->and($plans($mp3, new OutputSpec('mp3', sounds: [new SoundSpec(pieces: '0-1')])))->toHaveCount(1)
        ->and($plans($mp3, new OutputSpec('mp3', tags: ['title' => 'x'])))->toHaveCount(1);
    $named = dirname($mp3).'/in.wav.mp2';
    copy($mp3, $named);
    expect($plans($named, new OutputSpec('mp3')))->toHaveCount(1);
});

it('plans the same, byte for byte, from a source and from what is stored of it', function (string $name, string $bytes, OutputSpec $spec) {
    $path = Scratch::write($name, $bytes);
    $reading = Reader::read($path);
    $stored = Reading::fromArray((array) json_decode((string) json_encode($reading->toArray(), JSON_PRESERVE_ZERO_FRACTION), true));
    $spec = $spec->over(new OutputSpec(place: '/x'));
    $from = fn (Reading $source): array => array_map(fn (Plan $plan): string => $plan->toJson(), Planning::plans($source, $spec));
    expect($from($stored))->toBe($from($reading))->not->toBe([]);
    foreach (Planning::plans($reading, $spec) as $plan) {
        expect(Planning::stored($plan)->toJson())->toBe($plan->toJson());
    }
})->with(fn (): array => [
    ['a.wav', Signal::wave([Signal::sweep(9600)], SampleFormat::signed(24)),
        new OutputSpec('mp3', sounds: [new SoundSpec(layout: 'stereo', fadeIn: '0.1', level: 'peak:-1')])],
    ['b.mp4', Signal::movie([Signal::pictureTrack(60), Signal::aacTrack([Signal::sweep(96_000), Signal::sweep(96_000)], lateTicks: 4800)]),
        new OutputSpec('mov', sounds: [new SoundSpec(codec: 'wav', layout: 'split')])],
    ['c.mp4', Signal::movie([Signal::pictureTrack(60), Signal::aacTrack([Signal::sweep(96_000)])]),
        new OutputSpec('aac', sounds: [new SoundSpec(pieces: '0.2-0.4,1-end', separate: true)])],
    ['d.mp4', Signal::movie(array_map(fn (int $one) => Signal::aacTrack([Signal::sweep(9600)]), range(1, 6))),
        new OutputSpec('flac', sounds: [new SoundSpec('joined', layout: '5.1')])],
]);

it('knows a plan again whatever it is made of, and none that is damaged or of a version to come', function () {
    $plan = Planning::plan(lineOf('a.wav')->source, Spec::sound(Outputs::named('mp3'), RateControl::exactly(128), '/x'));
    $document = (array) json_decode($plan->toJson(), true);
    expect(Plan::fromArray($document)->toJson())->toBe($plan->toJson());
    foreach (array_diff(array_keys($document), ['version', 'picture', 'broadcast', 'cover']) as $field) {
        expect(fn () => Plan::fromArray(array_diff_key($document, [$field => 1])))->toThrow(PlanUnreadable::class, 'Order it again');
    }
    foreach (array_diff(array_keys($document['sounds'][0]), ['duration', 'quality', 'rate_mode', 'settings']) as $field) {
        $broken = $document;
        unset($broken['sounds'][0][$field]);
        expect(fn () => Plan::fromArray($broken))->toThrow(PlanUnreadable::class, 'Order it again');
    }
    expect(fn () => Plan::fromArray(['version' => 3] + $document))->toThrow(PlanUnreadable::class, 'version 3')
        ->and(fn () => Plan::fromArray(['steps' => [['kind' => 'magic']]] + $document))->toThrow(PlanUnreadable::class)
        ->and(fn () => Plan::fromArray(['sounds' => []] + $document))->toThrow(PlanUnreadable::class)
        ->and(fn () => Plan::fromArray([]))->toThrow(PlanUnreadable::class);
});

it('predicts sizes: exactly without compression, within three hundredths or the range that its kind has', function (string $format) {
    static $sources = [];
    $sources[$format === 'gsm' || $format === 'vox' ? 1 : 2] ??= (function (int $channels): string {
        mt_srand(5);
        $noise = fn (): array => array_map(fn (int $index): float => 0.3 * sin($index * 0.03 + 6 * sin($index * 0.0001)) + 0.1
            * (mt_rand() / mt_getrandmax() - 0.5), range(1, 480_000));

        return Scratch::write('music.wav', Signal::wave($channels === 1 ? [$noise()] : [$noise(), $noise()], SampleFormat::signed(16)));
    })($format === 'gsm' || $format === 'vox' ? 1 : 2);
    $line = new OrderLine(Reader::read($sources[$format === 'gsm' || $format === 'vox' ? 1 : 2]));
    $plan = SourceInspector::forecast([$line],
        new OutputSpec($format,
            sounds: [new SoundSpec(rateControl: in_array($format, ['mp3', 'aac', 'adts', 'opus', 'vorbis', 'mp2'], true)
            ? RateControl::near(128) : null)], place: Scratch::folder()))[0]->plans[0];
    $made = (new Maker)->make($plan, 'sized')->receipt->bytes;
    // Opus and Vorbis take what the sound needs around the rate that is asked for; ALAC is predicted by FLAC.
    $range = ['opus' => 0.15, 'vorbis' => 0.25, 'alac' => 0.06, 'wavpack' => 0.06][$format] ?? 0.03;
    expect($plan->target->predictedBytes / $made)->toEqualWithDelta(1.0, $range);
})->with(fn (): array => array_values(array_map(fn (OutputFormat $format): string => $format->name(),
    array_filter(Outputs::all(), fn (OutputFormat $format): bool => $format->capabilities()->makes))))->group('slow');

it('predicts Vorbis of sound that it needs little for, at every bit rate', function (callable $sound, ?RateControl $rate) {
    $path = Scratch::write('soft.wav', Signal::wave([$s = array_map($sound, range(0, 8 * 44_100)), $s], SampleFormat::signed(16), 44_100));
    $spec = new OutputSpec('vorbis', sounds: [new SoundSpec(rateControl: $rate)], place: Scratch::folder());
    $plan = SourceInspector::forecast([new OrderLine(Reader::read($path))], $spec)[0]->plans[0];
    // What an analysis has kept tells the same.
    $reading = Reader::read($path);
    $kept = Measurements::fromArray(json_decode((string) json_encode(ParallelAnalysis::run(Opener::open($path), $reading->sound()[0],
        Scratch::folder().'/waveform')->toArray()), true));
    $known = new OrderLine($reading, knowledge: new SourceKnowledge(analyses: [1 => $kept], packed: [1 => $kept->packed]));
    expect(OrderPlanner::plan([$known], $spec)[0]->plans[0]->target->predictedBytes)->toBe($plan->target->predictedBytes)
        ->and($plan->target->predictedBytes / (new Maker)->make($plan, 'soft')->receipt->bytes)->toEqualWithDelta(1.0, 0.12);
})->with([
    'a tone' => fn (int $index): float => 0.3 * sin($index * 0.0627), 'a soft tone' => fn (int $index): float => 0.003 * sin($index * 0.0627),
])->with([[RateControl::near(64)], [RateControl::near(200)], [RateControl::variable(5)], [null]]);

it('plans a source only once for every track, and wants nothing twice', function () {
    $wanted = new MissingFacts;
    $path = encoded('mp3', RateControl::exactly(128));
    Planner::plans(new OrderLine(Reader::read($path)),
        new OutputSpec('mp3', sounds: [new SoundSpec(pieces: '0-1,1-2', separate: true)], place: '/x'), $wanted);
    expect(array_keys($wanted->borders))->toHaveCount(2)->and($wanted->isEmpty())->toBeFalse()->and((new MissingFacts)->isEmpty())
        ->toBeTrue();
});

it('makes no telephone sound of what was compressed well, and leaves to whoever asks what they ask', function (string $codec,
    string $variant, int $channels, float $kbps, string $format, int $least, int $most) {
    $audio = new AudioFormat(Codec::from($codec), 48_000, $channels === 1 ? Layout::mono() : Layout::stereo(), null, 'x', 1024, $variant);
    $track = Track::sound(1, $audio, Timeline::plain(480_000), (int) ($kbps * 1250));
    $choice = new EncoderChoice(Outputs::named($format), '/x');
    $to = Outputs::named($format)->audio($audio, 48_000, $audio->layout, null);
    expect($choice->rateControl(null, $to, $track, $audio)->kbps)->toBeBetween($least, $most);
    expect($choice->rateControl(RateControl::near(32), $to, $track, $audio)->kbps)->toBeLessThanOrEqual(64);
})->with([
    'HE-AAC of 12 into MP3' => ['aac', 'HE-AAC', 1, 12.0, 'mp3', 64, 64],
    'HE-AAC v2 of 24 into MP3' => ['aac', 'HE-AAC v2', 2, 24.0, 'mp3', 128, 128],
    'HE-AAC of 64 into MP3' => ['aac', 'HE-AAC', 2, 64.0, 'mp3', 160, 192],
    'AAC of 42 into MP3' => ['aac', '', 1, 42.0, 'mp3', 72, 80],
    'Opus of 49 into MP3' => ['opus', '', 2, 49.0, 'mp3', 128, 128],
    'Opus of 128 into MP3' => ['opus', '', 2, 128.0, 'mp3', 192, 192],
    'MP3 of 320 into AAC' => ['mp3', '', 2, 320.0, 'aac', 128, 320],
    'MP3 of 64 into Opus' => ['mp3', '', 2, 64.0, 'opus', 64, 64],
    'AAC of 160 into AAC' => ['aac', '', 2, 160.0, 'aac', 100, 163],
]);
