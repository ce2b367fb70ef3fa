<?php

declare(strict_types=1);

use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Timeline;

/**
 * Segments as `from+length`, silence as `-+length`.
 *
 * @param  list<Segment>  $segments
 */
function written(array $segments): string
{
    return implode(' ', array_map(fn (Segment $one): string => ($one->from ?? '-').'+'.$one->length, $segments));
}

it('leaves out the first decoded samples once, and none of what follows', function () {
    $plain = Timeline::plain(1000);
    expect(written($plain->primed(100)->segments))->toBe('100+900')->and($plain->primed(100)->coded)->toBe(1000)
        ->and($plain->primed(100)->skipped())->toBe(100)
        // What is left out already is not left out twice, and a stretch that is shorter stays.
        ->and(written($plain->primed(100)->primed(50)->segments))->toBe('100+900')
        ->and(written(Timeline::plain(80)->primed(100)->segments))->toBe('0+80')
        ->and(written(Timeline::edited(7, [Segment::media(0, 500), Segment::silence(20), Segment::media(600, 100)], 900)->primed(100)
            ->segments))
        ->toBe('100+400 -+20 600+100')
        ->and(Timeline::edited(7, [Segment::media(0, 500)], 900)->primed(100)->startOffset)->toBe(7);
});

it('counts several samples where the container counts one', function () {
    $twice = Timeline::edited(30, [Segment::silence(5), Segment::media(10, 200)], 400)->times(2);
    expect([$twice->startOffset, written($twice->segments), $twice->coded, $twice->samples()])->toBe([60, '-+10 20+400', 800, 410]);
});

it('is seen from a moment: silence before what begins later, nothing of what is over', function (int $from, ?int $duration,
    string $segments) {
    $timeline = Timeline::edited(100, [Segment::media(1000, 50), Segment::silence(20), Segment::media(2000, 30)], 5000);
    expect(written($timeline->from($from, $duration)))->toBe($segments);
})->with([
    'from its own begin' => [100, null, '1000+50 -+20 2000+30'],
    'from before' => [60, null, '-+40 1000+50 -+20 2000+30'],
    'from within' => [110, null, '1010+40 -+20 2000+30'],
    'from within its silence' => [155, null, '-+15 2000+30'],
    'from behind its end' => [300, null, ''],
    'no longer than asked' => [60, 70, '-+40 1000+30'],
    'as long as asked' => [100, 150, '1000+50 -+20 2000+30 -+50'],
    'to the sample' => [100, 100, '1000+50 -+20 2000+30'],
    'of nothing' => [300, 10, '-+10'],
]);

it('cuts out what lies between two samples', function () {
    $segments = [Segment::media(1000, 50), Segment::silence(20), Segment::media(2000, 30)];
    expect(written(Segment::between($segments, 10, 60)))->toBe('1010+40 -+10')->and(written(Segment::between($segments, 50, 70)))
        ->toBe('-+20')
        ->and(written(Segment::between($segments, 70, 500)))->toBe('2000+30')->and(Segment::total($segments))->toBe(100)
        ->and(Segment::silent($segments))->toBe(20);
});
