<?php

declare(strict_types=1);

use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Name\Signs;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlannedLine;
use Octavox\Core\Plan\SourceKnowledge;
use Octavox\Core\Plan\SourceLabel;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

function smallReading(): Reading
{
    static $reading = null;

    return $reading ??= Reader::read(Scratch::write('Small.wav',
        Signal::wave([Signal::steps(480, 1), Signal::steps(480, 2)], SampleFormat::signed(16))));
}

/** @return list<string> paths of all results, in their order */
function pathsOf(array $lines, OutputSpec $spec): array
{
    return array_merge(...array_map(fn (PlannedLine $line): array => array_map(fn (Plan $plan): string => $plan->path(), $line->plans),
        array_values(OrderPlanner::plan($lines, $spec))));
}

it('gives ten thousand names that collapse into one ten thousand names, soon', function () {
    $lines = array_fill(0, 10_000, new OrderLine(smallReading()));
    $paths = pathsOf($lines, new OutputSpec('flac', name: 'same', place: '/x'));
    expect(count(array_unique(array_map(mb_strtolower(...), $paths))))->toBe(10_000)->and($paths[0])->toBe('/x/same.flac')
        ->and($paths[9999])->toBe('/x/same 10000.flac');
})->group('slow');

it('never lets two results collide, nor one lie outside of its place, and plans the same again', function (int $seed) {
    mt_srand($seed);
    $of = fn (array $all): mixed => $all[mt_rand(0, count($all) - 1)];
    $lines = [];
    for ($number = 0; $number < 40; $number++) {
        $name = $of(['a', 'A', 'a 2', 'ä', "a\u{308}", 'CON', '..', '🚤', str_repeat('🚤', 80), 'x/y', "tab\t", '']);
        $changes = new OutputSpec(tags: ['title' => $of(['One', 'one', 'One ', '../One', 'One/Two', '']),
            'track' => $of(['1', '01', '1/9'])]);
        $lines[] = new OrderLine(smallReading(), $changes, new SourceKnowledge,
            new SourceLabel($name.'.wav', $of(['', 'Day 1', '../up', 'a//b', 'a/./b'])));
    }
    $spec = new OutputSpec('flac', sounds: [new SoundSpec(layout: $of(['asis', 'split', 'mono']))],
        name: $of(['{stem}', '{title}', '{tree}/{title|stem}',
            '{album}/{track:2}', '[{title}/]{stem}', '{title}/../{stem}', 'same']), place: '/place', nameSigns: $of(Signs::cases()));
    $paths = pathsOf($lines, $spec);
    $folded = array_map(fn (string $path): string => mb_strtolower((string) Normalizer::normalize($path, Normalizer::FORM_C)), $paths);
    expect($paths)->toBe(pathsOf($lines, $spec))->and(count(array_unique($folded)))->toBe(count($paths))->and(count($paths))
        ->toBeGreaterThanOrEqual(40);
    foreach ($paths as $path) {
        expect($path)->toStartWith('/place/')->not->toMatch('~/(\.\.?)?/|/\.\.?$~')->and(strlen(basename($path)))->toBeLessThanOrEqual(255);
    }
})->with(range(1, 25));

it('refuses a pattern with a field that there is not, for each line, and lets the others go on', function () {
    $lines = [new OrderLine(smallReading()), new OrderLine(smallReading(), new OutputSpec(name: '{colour}')),
        new OrderLine(smallReading())];
    [$one, $two, $three] = OrderPlanner::plan($lines, new OutputSpec('flac', place: '/x'));
    expect($two->refusal)->toBeInstanceOf(CannotPlan::class)->and($two->refusal?->getMessage())->toContain('{colour}')
        ->and([$one->plans[0]->name(), $three->plans[0]->name()])->toBe(['Small.flac', 'Small 2.flac']);
});

it('takes names and folders from what a source was called, not from where it lies', function () {
    $line = new OrderLine(smallReading(), label: new SourceLabel('Brought in.mov', 'Shelf/Day one'));
    $spec = fn (string $name): OutputSpec => new OutputSpec('flac', name: $name, place: '/x');
    expect(pathsOf([$line], $spec('{tree}/{folder} {stem}')))->toBe(['/x/Shelf/Day one/Day one Brought in.flac'])
        ->and(pathsOf([new OrderLine(smallReading())], $spec('{stem} of {folder|"nowhere"}')))
        ->toBe(['/x/Small of '.basename(dirname(smallReading()->path)).'.flac'])
        ->and(pathsOf([$line], new OutputSpec('flac', place: OutputSpec::BESIDE)))
        ->toBe([dirname(smallReading()->path).'/Brought in.flac']);
});

it('puts the day and the title of an order into a pattern, whatever the title holds', function (string $title, string $name) {
    expect((new NamePattern(NamePattern::dated('{today} {order}/{stem}', '2026-11-27', $title)))
        ->fill(['stem' => 'x', 'title' => 'no']))->toBe($name);
})->with([
    ['Lift day', '2026-11-27 Lift day/x'], ['', '2026-11-27/x'], ['a/b {title} [x] "y" |', '2026-11-27 a b title x y/x'],
    ['..', '2026-11-27/x'],
    ["bad\xFF", '2026-11-27 bad/x'],
]);
