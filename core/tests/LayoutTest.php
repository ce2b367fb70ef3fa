<?php

declare(strict_types=1);

use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LayoutNotCarried;
use Octavox\Core\Sound\Mix;
use Octavox\Core\Sound\Mixer;
use Octavox\Core\Sound\NoStandardMix;

it('names layouts as the trade does', function (Layout $layout, string $name, array $letters) {
    expect($layout->name())->toBe($name)->and($layout->names())->toBe($letters);
})->with([
    [Layout::mono(), 'mono', ['M']],
    [Layout::stereo(), 'stereo', ['L', 'R']],
    [Layout::fiveOne(), '5.1', ['L', 'R', 'C', 'LFE', 'Ls', 'Rs']],
    [Layout::undeclared(1), 'mono', ['M']],
    [Layout::undeclared(2), 'stereo', ['L', 'R']],
    [Layout::undeclared(5), '5 channels', ['1', '2', '3', '4', '5']],
    [Layout::of(Channel::Left, Channel::Right, Channel::Centre), 'L R C', ['L', 'R', 'C']],
    [Layout::of(Channel::Left, Channel::Right, Channel::BackLeft, Channel::BackRight), 'L R Lb Rb', ['L', 'R', 'Lb', 'Rb']],
    [Layout::of(Channel::Centre, Channel::Unplaced), '2 channels', ['C', '2']],
    [Layout::of(Channel::BackCentre), 'mono', ['M']],
]);

it('reads a mask of WAV as Microsoft counts its bits', function (int $mask, int $count, array $channels) {
    $layout = Layout::fromMask($mask, $count);
    expect($layout->channels)->toBe($channels)->and($layout->count())->toBe($count);
})->with([
    [0x3, 2, [Channel::Left, Channel::Right]],
    [0x4, 1, [Channel::Centre]],
    [0x3F, 6, [Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency, Channel::BackLeft, Channel::BackRight]],
    [0x60F, 6, [Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency, Channel::SideLeft, Channel::SideRight]],
    [0x107, 4, [Channel::Left, Channel::Right, Channel::Centre, Channel::BackCentre]],
    [0xC0, 2, [Channel::LeftOfCentre, Channel::RightOfCentre]],
    [0x3, 4, [Channel::Left, Channel::Right, Channel::Unplaced, Channel::Unplaced]],
    [0x3F, 2, [Channel::Left, Channel::Right]],
    [0, 3, [Channel::Unplaced, Channel::Unplaced, Channel::Unplaced]],
    [0, 2, [Channel::Left, Channel::Right]],
    [0x80000000, 1, [Channel::Unplaced]],
]);

it('gives the mask back that it was made of', function (int $seed) {
    mt_srand($seed);
    foreach (range(1, 50) as $time) {
        $mask = mt_rand(1, 0x7FF);
        $count = substr_count(decbin($mask), '1');
        $layout = Layout::fromMask($mask, $count);
        expect($layout->mask())->toBe($mask)->and($layout->inMaskOrder()->equals($layout))->toBeTrue();
        $channels = $layout->channels;
        shuffle($channels);
        $shuffled = Layout::of(...$channels);
        expect($shuffled->inMaskOrder()->equals($layout))->toBeTrue()->and($shuffled->mask())->toBe($mask);
        $places = $shuffled->placesOf($layout);
        expect(array_map(fn (int $place): Channel => $shuffled->channels[$place], $places ?? []))
            ->toBe($count === 1 ? $channels : $layout->channels);
    }
})->with([1, 2, 3]);

it('takes one pair of surrounds for the same, wherever it stands', function () {
    $sides = Layout::fromMask(0x60F, 6);
    $back = Layout::fromMask(0x3F, 6);
    expect($sides->sounds($back))->toBeTrue()->and($back->sounds($sides))->toBeTrue()->and($back->placesOf($sides))
        ->toBe([0, 1, 2, 3, 4, 5])
        ->and($sides->sounds(Layout::stereo()))->toBeFalse()
        ->and(Layout::fromMask(0x33, 4)->sounds(Layout::fromMask(0x603, 4)))->toBeTrue()
        ->and(Layout::fromMask(0x3F, 6)->sounds(Layout::fromMask(0x10F, 5)))->toBeFalse()
        ->and(Layout::undeclared(6)->sounds($sides))->toBeTrue();
});

it('finds the smallest layout of a format that has a place for each channel', function (Layout $layout, ?string $carried) {
    $layouts = [Layout::mono(), Layout::stereo(), Layout::fromMask(0x7, 3), Layout::fromMask(0x33, 4), Layout::fiveOne(),
        Layout::sevenOne()];
    if ($carried === null) {
        expect(fn () => $layout->carriedBy($layouts, 'Tally'))->toThrow(LayoutNotCarried::class, 'Tally');
    } else {
        expect($layout->carriedBy($layouts, 'Tally')->name())->toBe($carried);
    }
})->with([
    [Layout::mono(), 'mono'],
    [Layout::stereo(), 'stereo'],
    [Layout::fromMask(0x7, 3), 'L R C'],
    [Layout::fromMask(0xB, 3), '5.1'],
    [Layout::fromMask(0x603, 4), 'L R Lb Rb'],
    [Layout::fromMask(0x607, 5), '5.1'],
    [Layout::fromMask(0x63F, 8), '7.1'],
    [Layout::fromMask(0x107, 4), null],
    [Layout::fromMask(0xC3, 4), null],
    [Layout::undeclared(5), '5 channels'],
    [Layout::undeclared(6), '5.1'],
]);

it('mixes to stereo and mono as ITU-R BS.775 has it, with 3 dB less of centre and surrounds',
    function (Layout $from, Layout $to, array $wanted) {
        $gains = Mix::between($from, $to)->gains;
        $loudest = max(array_map(fn (array $row): float => array_sum(array_map(abs(...), $row)), $gains));
        foreach ($wanted as $row => $relative) {
            $first = $gains[$row][array_key_first(array_filter($relative))] ?: 1.0;
            foreach ($relative as $channel => $gain) {
                expect($gains[$row][$channel] / $first * (array_values(array_filter($relative))[0] ?? 1.0))
                    ->toEqualWithDelta($gain, 0.0001, "row $row, channel $channel");
            }
        }
        // Never louder than full scale.
        expect($loudest)->toBeLessThanOrEqual(1.0001);
    })->with([
        [Layout::fiveOne(), Layout::stereo(), [[1.0, 0.0, M_SQRT1_2, 0.0, M_SQRT1_2, 0.0], [0.0, 1.0, M_SQRT1_2, 0.0, 0.0, M_SQRT1_2]]],
        [Layout::stereo(), Layout::mono(), [[1.0, 1.0]]],
        [Layout::mono(), Layout::stereo(), [[1.0], [1.0]]],
        [Layout::fromMask(0x7, 3), Layout::stereo(), [[1.0, 0.0, M_SQRT1_2], [0.0, 1.0, M_SQRT1_2]]],
    ]);

it('mixes each sample as its gains say', function (int $from, int $to) {
    $in = $from === 6 ? Layout::fiveOne() : Layout::undeclared($from);
    $out = $to === 6 ? Layout::fiveOne() : Layout::undeclared($to);
    mt_srand($from * 10 + $to);
    $sound = array_map(fn (): array => array_map(fn (): float => mt_rand(-1000, 1000) / 1000, range(1, 300)), range(1, $from));
    try {
        $mix = Mix::between($in, $out);
    } catch (NoStandardMix $none) {
        expect($none->getMessage())->not->toBe('');

        return;
    }
    $mixed = [];
    foreach ((new Mixer($mix))->take(Block::fromChannels($sound)) as $block) {
        array_push($mixed, ...array_values(unpack('f*', $block->bytes())));
    }
    foreach ($mixed as $index => $sample) {
        $row = $mix->gains[$index % $to];
        $wanted = array_sum(array_map(fn (float $gain, array $channel): float => $gain * $channel[intdiv($index, $to)], $row, $sound));
        if (abs($sample - $wanted) > 2e-6) {
            expect((string) $sample)->toBe((string) $wanted, "sample $index");
        }
    }
    expect(count($mixed))->toBe(300 * $to);
})->with([1, 2, 3, 6])->with([1, 2, 6]);
