<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\SourceInspector;
use Octavox\Core\Make\VerificationFailed;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\IfRight;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\PictureChoice;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Testing\WriterTrack;
use Octavox\Core\Tests\Support\ReplicatedAac;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return array<string, Reading> short sources of every nature */
function natures(): array
{
    $tone = fn (int $frames, float $level = 0.5): array => Signal::sweep($frames, $level);
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 24_000, Layout::mono()), RateControl::exactly(48), [$tone(14_400)]);
    $wave = fn (int $channels, SampleFormat $format, int $rate): string => Signal::wave(
        array_map(fn (int $seed): array => $channels === 1 ? $tone(12_000) : Signal::steps(12_000, $seed),
            range(1, $channels)), $format, $rate);
    $files = [
        'mono.wav' => $wave(1, SampleFormat::signed(16), 44_100), 'stereo.wav' => $wave(2, SampleFormat::signed(24), 48_000),
        'six.wav' => $wave(6, SampleFormat::signed(16), 48_000), 'float.wav' => $wave(2, SampleFormat::float(32), 96_000),
        'three.wav' => $wave(3, SampleFormat::signed(16), 8000),
        'silent.wav' => Signal::wave([array_fill(0, 9000, 0.0)], SampleFormat::signed(16)),
        'one sample.wav' => Signal::wave([[0.25], [0.5]], SampleFormat::signed(16)),
        'speech.mp3' => Signal::mp3([$tone(20_000)], RateControl::exactly(64)),
        'replicated.m4a' => Signal::movie([WriterTrack::sound($encoder->audio(), ReplicatedAac::of($packets, true), $encoder->delay(),
            14_400)], true,
            'M4A ', null, 24_000),
        'video.mp4' => Signal::movie([Signal::pictureTrack(15), Signal::aacTrack([$tone(28_800), $tone(28_800)]),
            Signal::aacTrack([$tone(20_000)], lateTicks: 4800)]),
        'quiet video.mp4' => Signal::movie([Signal::pictureTrack(15)]),
        'tracks.mov' => Signal::movie([Signal::pictureTrack(12), ...array_map(
            fn (int $seed) => Signal::pcmTrack([Signal::steps(24_000, $seed)], SampleFormat::signed(16, true)),
            range(1, 4))], brand: 'qt  '),
    ];
    $readings = [];
    foreach ($files as $name => $bytes) {
        $readings[$name] = Reader::read(Scratch::write($name, $bytes));
    }

    return $readings;
}

/** A spec by chance: mostly one that somebody might write, now and then one that makes no sense. */
function chanceSpec(): OutputSpec
{
    $one = fn (array $of): mixed => $of[mt_rand(0, count($of) - 1)];
    $seldom = fn (array $of, int $in = 3): mixed => mt_rand(1, $in) === 1 ? $one($of) : null;
    $sound = fn (): SoundSpec => new SoundSpec(
        tracks: $seldom(['1', '2', '3', 'all', 'joined', '2+3', '2,3', 'eng', 'cym', '9', '2+2', ''], 7),
        codec: $seldom(['wav', 'flac', 'opus', 'aac', 'mp3', 'keep', 'alac', 'nothing'], 16),
        rateControl: $seldom([RateControl::near(96), RateControl::exactly(128), RateControl::variable(3), RateControl::exactly(1),
            RateControl::near(96)->held(RateMode::Average), RateControl::exactly(128)->held(RateMode::Constant)], 8),
        rate: $seldom([8000, 16_000, 22_050, 44_100, 48_000, 96_000, 7, 1_000_000], 7), bitDepth: $seldom([8, 16, 24, 32, 20], 8),
        layout: $seldom(['mono', 'stereo', 'split', 'left', 'swap', 'left-both', '5.1', '7.1', '1/2', '2,1', '1@-6+2@-6', '1,-1',
            '9', 'round'], 5),
        labels: $seldom([['lav', 'boom'], ['', 'x'], []], 6),
        pieces: $seldom(['0-0.1', '0.05-0.1,0.12-end', '0.1-0.05', '100#-2000#', '0-end', '5-6', '-0.1-end', 'silences:-45:0.01',
            'chapters', '2f-4f',
            'x', ''], 6),
        separate: $seldom([true, false], 4), exact: $seldom([true, false], 4), fadeIn: $seldom(['0.02', '0', '10', 'x', '50#'], 7),
        fadeOut: $seldom(['0.02', '3'], 5), level: $seldom(['gain:+3', 'peak:-1', 'rms:-20', 'lufs:-16:-2', 'gain:-80', 'loud', ''], 7),
        together: $seldom([true], 8), stereo: $seldom(StereoCoding::cases(), 9), checksums: $seldom([true, false], 9),
        compression: $seldom([0, 2, 8, 9], 9), dither: $seldom([true, false], 9),
    );
    $names = array_map(fn ($format): string => $format->name(), [...Outputs::all(), ...VideoOutputs::all(), ...VideoOutputs::all()]);

    return new OutputSpec(
        $one([...$names, 'wav', 'mp3', 'nothing']), $seldom(PictureChoice::cases(), 12),
        $one([[], [$sound()], [$sound()], [$sound()], [$sound(), $sound()]]),
        $seldom([Length::sound(), Length::picture(), Length::tryFrom('0.02'), Length::tryFrom('0:09')], 9), $seldom([['title' => 'Lift',
            'artist' => null], []], 5),
        $seldom(['{stem} {label} {piece}', '{title}', '../{stem}', 'same', str_repeat('long ', 80)], 3), Scratch::folder(),
        $seldom(IfExists::cases(), 4), $seldom(IfRight::cases(), 4),
    );
}

it('plans whatever is asked of whatever there is: results, or a refusal in a sentence; and makes what it has planned',
    function (int $seed) {
        static $natures = null;
        $natures ??= natures();
        mt_srand($seed);
        $wrong = [];
        $planned = $refused = $made = 0;
        for ($time = 0; $time < 60; $time++) {
            $spec = chanceSpec();
            $lines = array_map(fn (Reading $reading): OrderLine => new OrderLine($reading), $natures);
            foreach (SourceInspector::plan($lines, $spec) as $name => $line) {
                $what = $name.' '.json_encode($spec->toArray());
                $planned += count($line->plans);
                $refused += $line->refusal === null ? 0 : 1;
                if ($line->refusal instanceof InternalFault) {
                    $wrong[] = $what.': '.$line->refusal->getPrevious();
                }
                foreach ($line->plans as $number => $plan) {
                    $stored = Plan::fromArray((array) json_decode($plan->toJson(), true));
                    $stored->toJson() === $plan->toJson() || $wrong[] = $what.': stored otherwise';
                    // Some of them are carried out.
                    if (mt_rand(1, 14) !== 1) {
                        continue;
                    }
                    try {
                        $result = (new Maker)->make($stored, "any-$number");
                        $made++;
                        if (! $result->isSkipped()) {
                            $result->receipt?->samples === $plan->length() || $plan->isKept() || $wrong[] = $what.': another length';
                            filesize($result->path) === $result->receipt?->bytes || $wrong[] = $what.': another size';
                        }
                    } catch (VerificationFailed|InternalFault|Error|ErrorException $thrown) {
                        $wrong[] = $what.': '.$thrown::class.' '.$thrown->getMessage().' '.$thrown->getPrevious()?->getMessage();
                    } catch (Octavox\Core\Failure) {
                        $refused++;
                    }
                }
            }
        }
        expect(array_slice($wrong, 0, 5))->toBe([])->and($planned)->toBeGreaterThan(100)->and($refused)->toBeGreaterThan(50)
            ->and($made)->toBeGreaterThan(5);
    })->with(range(1, 12))->group('slow');
