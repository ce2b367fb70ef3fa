<?php

declare(strict_types=1);

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Level;
use Octavox\Core\Sound\LevelKind;
use Octavox\Core\Sound\LevelTarget;

/**
 * A stereo sine of 1000 Hz whose level changes, measured.
 *
 * @param  list<array{float, float}>  $parts  dBFS of the peak, seconds
 */
function sineOf(array $parts, Layout $layout, array $offsets = [0.0, 0.0]): Measurements
{
    $meter = new Analyzer(48_000, $layout);
    $phase = 0;
    foreach ($parts as [$decibels, $seconds]) {
        for ($left = (int) round($seconds * 48_000); $left > 0; $left -= $count) {
            $count = min(48_000, $left);
            $channels = [];
            foreach ($offsets as $offset) {
                $level = 10 ** (($decibels + $offset) / 20);
                $channels[] = array_map(fn (int $index): float => $level * sin(2 * M_PI * 1000 * $index / 48_000),
                    range($phase, $phase + $count - 1));
            }
            $phase += $count;
            $meter->take(Block::fromChannels($channels));
        }
    }

    return $meter->finish();
}

it('measures the programme loudness of the test signals of EBU Tech 3341, table 1', function (array $parts, float $lufs) {
    expect(sineOf($parts, Layout::stereo())->loudness->integrated)->toEqualWithDelta($lufs, 0.1);
})->with([
    '1' => [[[-23.0, 20]], -23.0],
    '2' => [[[-33.0, 20]], -33.0],
    '3' => [[[-36.0, 10], [-23.0, 60], [-36.0, 10]], -23.0],
    '4' => [[[-72.0, 10], [-36.0, 10], [-23.0, 60], [-36.0, 10], [-72.0, 10]], -23.0],
    '5' => [[[-26.0, 20], [-20.0, 20.1], [-26.0, 20]], -23.0],
]);

it('measures 5.1 as EBU Tech 3341, table 1, case 6', function () {
    // Left, right, centre, low frequencies, surrounds.
    $measured = sineOf([[0.0, 20]], Layout::fiveOne(), [-28.0, -28.0, -24.0, -200.0, -30.0, -30.0]);
    expect($measured->loudness->integrated)->toEqualWithDelta(-23.0, 0.1);
});

it('leaves out what lies below the absolute gate of BS.1770-4, annex 1, equation 6, and nothing above it', function () {
    // As loud as its peak says, as case 1 of Tech 3341 does: 70 LUFS below full scale is the gate.
    expect(sineOf([[-69.5, 5]], Layout::stereo())->loudness->integrated)->toEqualWithDelta(-69.5, 0.1)
        ->and(sineOf([[-70.5, 5]], Layout::stereo())->loudness->integrated)->toBeNull();
    // Without the gate the quiet half would drag the mean, and with it the relative gate, down to itself.
    expect(sineOf([[-71.0, 40], [-62.0, 10]], Layout::stereo())->loudness->integrated)->toEqualWithDelta(-62.0, 0.15);
});

it('leaves out what lies more than 10 LU below the mean of what is louder than the absolute gate: BS.1770-4, annex 1, equation 7',
    function (float $quieter, float $lufs) {
        // Half of it is quieter, so the mean lies 2.7 LU below the louder half, and the gate 12.7.
        expect(sineOf([[-20.0, 6], [-20.0 - $quieter, 6]], Layout::stereo())->loudness->integrated)->toEqualWithDelta($lufs, 0.15);
    })->with(['just above the gate' => [11.7, -20.0 + 10 * log10((1 + 10 ** -1.17) / 2)], 'just below it' => [13.7, -20.0]]);

it('weighs a pair in the back as surrounds where there is none at the sides: BS.1770-4, annex 1, table 3, and annex 3, table 5',
    function () {
        $quad = Layout::of(Channel::Left, Channel::Right, Channel::BackLeft, Channel::BackRight);
        $off = -200.0;
        $surround = 10 * log10(1.41);
        expect(sineOf([[-20.0, 5]], $quad, [$off, $off, 0.0, 0.0])->loudness->integrated)->toEqualWithDelta(-20.0 + $surround, 0.05)
            ->and(sineOf([[-20.0, 5]], $quad, [0.0, 0.0, $off, $off])->loudness->integrated)->toEqualWithDelta(-20.0, 0.05);
        $seven = Layout::sevenOne();
        $only = fn (Channel ...$loud): array => array_map(fn (Channel $one): float => in_array($one, $loud, true) ? 0.0 : $off, $seven
            ->channels);
        expect(sineOf([[-20.0, 5]], $seven, $only(Channel::BackLeft, Channel::BackRight))->loudness->integrated)->toEqualWithDelta(-20.0, 0.05)
            ->and(sineOf([[-20.0, 5]], $seven, $only(Channel::SideLeft, Channel::SideRight))->loudness->integrated)
            ->toEqualWithDelta(-20.0 + $surround, 0.05)
            ->and(sineOf([[-20.0, 5]], $seven, $only(Channel::LowFrequency))->loudness->integrated)->toBeNull();
    });

it('takes the range from the tenth to the ninety-fifth percentile: Tech 3342, 2', function () {
    // An eighth of all stretches of three seconds is quiet from end to end: more than a tenth, less than a seventh.
    expect(sineOf([[-35.0, 15.5], [-20.0, 84.5]], Layout::stereo())->loudness->range)->toEqualWithDelta(15.0, 0.3)
        ->and(sineOf([[-35.0, 11.5], [-20.0, 88.5]], Layout::stereo())->loudness->range)->toBeLessThan(12.0)
        // Loud from end to end for a sixteenth, and for a twenty-fifth.
        ->and(sineOf([[-35.0, 90.5], [-20.0, 9.5]], Layout::stereo())->loudness->range)->toEqualWithDelta(15.0, 0.3)
        ->and(sineOf([[-35.0, 95.5], [-20.0, 4.5]], Layout::stereo())->loudness->range)->toBeLessThan(14.0);
})->group('slow');

it('measures momentary and short-term loudness of a steady tone', function () {
    $measured = sineOf([[-23.0, 10]], Layout::stereo());
    expect($measured->loudness->momentary)->toEqualWithDelta(-23.0, 0.1)->and($measured->loudness->shortTerm)->toEqualWithDelta(-23.0, 0.1)
        ->and($measured->truePeak())->toEqualWithDelta(10 ** (-23 / 20), 0.001)
        ->and($measured->levels[0]->rmsDecibels())->toEqualWithDelta(-26.01, 0.02);
});

it('measures the loudness range of the test signals of EBU Tech 3342, table 1', function (array $parts, float $range) {
    expect(sineOf($parts, Layout::stereo())->loudness->range)->toEqualWithDelta($range, 1.0);
})->with([
    '1' => [[[-20.0, 20], [-30.0, 20]], 10.0],
    '2' => [[[-20.0, 20], [-15.0, 20]], 5.0],
    '3' => [[[-40.0, 20], [-20.0, 20]], 20.0],
    '4' => [[[-50.0, 20], [-35.0, 20], [-20.0, 20], [-35.0, 20], [-50.0, 20]], 15.0],
])->group('slow');

it('has no loudness where there is only silence, or too little of it', function (float $decibels, float $seconds) {
    $measured = sineOf([[$decibels, $seconds]], Layout::stereo());
    expect($measured->loudness->integrated)->toBeNull()->and($measured->loudness->range)->toBeNull();
})->with([[-90.0, 5], [-23.0, 0.2]]);

it('reads levels as people write them', function (string $written, LevelKind $kind, float $value, float $ceiling, string $again) {
    $level = LevelTarget::parse($written);
    expect([$level->kind, round($level->value, 3), $level->ceiling])->toBe([$kind, $value, $ceiling])->and((string) $level)->toBe($again);
})->with([
    ['gain:+3', LevelKind::Gain, 3.0, -1.0, 'gain:3'],
    ['gain:-3.25', LevelKind::Gain, -3.25, -1.0, 'gain:-3.25'],
    ['GAIN:0', LevelKind::Gain, 0.0, -1.0, 'gain:0'],
    [' peak:-1 ', LevelKind::Peak, -1.0, -1.0, 'peak:-1'],
    ['peak:50%', LevelKind::Peak, -6.021, -1.0, 'peak:-6.02'],
    ['peak:100%', LevelKind::Peak, 0.0, -1.0, 'peak:0'],
    ['rms:−20', LevelKind::Rms, -20.0, -1.0, 'rms:-20'],
    ['rms:-20:-3', LevelKind::Rms, -20.0, -3.0, 'rms:-20:-3'],
    ['lufs:-16', LevelKind::Loudness, -16.0, -1.0, 'lufs:-16'],
    ['lufs:-16:−2.5', LevelKind::Loudness, -16.0, -2.5, 'lufs:-16:-2.5'],
    ['lufs:-23:-1', LevelKind::Loudness, -23.0, -1.0, 'lufs:-23'],
]);

it('refuses levels that cannot be meant', function (string $written) {
    expect(fn () => LevelTarget::parse($written))->toThrow(InvalidLevel::class);
})->with(['', 'loud', 'peak', 'peak:', 'peak:x', 'peak:3', 'peak:0%', 'peak:101%', 'lufs:50%', 'rms:5', 'lufs:0:5', 'lufs:-16:-21',
    'lufs:-16:1', 'gain:100',
    'gain:-100', 'lufs:-200', 'peak:-1:-2:-3', 'lufs:--16', 'lufs:1e3']);

it('reaches a target with one gain, and no more than the ceiling lets it',
    function (string $target, ?float $measured, float $peak, float $gain, bool $isHeld) {
        $applied = LevelTarget::parse($target)->gain($measured, $peak);
        expect($applied->decibels)->toEqualWithDelta($gain, 0.001)->and($applied->held)->toBe($isHeld);
    })->with([
        ['gain:+3', -20.0, 0.1, 3.0, false],
        ['gain:+3', null, 0.0, 3.0, false],
        ['peak:-1', -7.0, 0.4467, 6.0, false],
        ['lufs:-16', -20.0, 0.1, 4.0, false],
        ['lufs:-16', -20.0, 1.0, -1.0, true],
        ['lufs:-16:-3', -20.0, 0.7079, 0.0, true],
        ['lufs:-23', -16.0, 1.2, -7.0, false],
        ['rms:-20', -30.0, 0.5, 5.0206, true],
        ['lufs:-16', null, 0.0, 0.0, false],
        ['peak:-1', null, 0.0, 0.0, false],
    ]);

it('tells levels in decibels, and silence as none', function () {
    expect((new Level(1.0, 0.5))->peakDecibels())->toEqualWithDelta(0.0, 0.001)->and((new Level(1.0, 0.5))->rmsDecibels())
        ->toEqualWithDelta(-6.02, 0.01)
        ->and((new Level(0.0, 0.0))->peakDecibels())->toBeNull()->and((new Level(0.0, 0.0))->rmsDecibels())->toBeNull()
        ->and(Level::ofDecibels(-6.02, -12.04)?->peak)->toEqualWithDelta(0.5, 0.001)->and(Level::ofDecibels(null, null))->toBeNull();
});
