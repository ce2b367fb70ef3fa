<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Sound\TimePosition;

/** How long a result becomes, where its length is asked for, and which pieces of its source that leaves. */
final readonly class PlannedLength
{
    /**
     * @param  ?int  $duration  samples of the source that the result lasts; null for as long as its sound
     * @param  string  $pieces  what is asked of pieces then, see {@see SoundSpec::$pieces}
     */
    private function __construct(public ?int $duration, public string $pieces) {}

    /**
     * @param  int  $start  samples of the source's time at which the result begins
     *
     * @throws CannotPlan where there is no picture to be as long as
     * @throws Failure
     */
    public static function of(SoundRequest $request, Track $track, AudioFormat $from, int $start): self
    {
        $nearest = [Length::sound()->value];
        $pieces = $request->spec->pieces ?? '';
        $source = $request->source;
        if ($request->length->isOfSound()) {
            return new self(null, $pieces);
        }
        if ($request->video !== null) {
            throw (new Violations\VideoLength(nearest: $nearest))->at($source->path);
        }
        if ($request->length->isTime()) {
            return self::asked($request, $from, Segment::total($track->timeline->from($start)), $nearest);
        }
        $picture = $source->picture()?->picture;
        $duration = $picture === null ? 0 : (int) round($picture->seconds * $from->rate);

        return $duration > 0 ? new self($duration, $pieces)
            : throw (new Violations\NoLength(name: basename($source->path), nearest: $nearest))->at($source->path);
    }

    /**
     * A length that was asked for by number: a longer sound is cut there, a shorter one gets silence.
     *
     * @param  int  $own  samples that there are
     * @param  list<string>  $nearest  what could be asked instead
     *
     * @throws Failure where what is left of it is asked as well
     */
    private static function asked(SoundRequest $request, AudioFormat $from, int $own, array $nearest): self
    {
        $perSecond = $request->source->picture()->picture->perSecond ?? 0.0;
        $samples = TimePosition::parse($request->length->value, $from->rate, 0, $perSecond);
        $text = $request->spec->pieces ?? '';
        $isWord = str_starts_with($text, 'chapters') || str_starts_with($text, 'silences');
        $pieces = $isWord || $text === '' ? [] : (new ShapeBuilder($from->layout, $from->rate, $own, $perSecond))->pieces($text);
        $first = $pieces[0]->from ?? 0;
        $until = $first + $samples;
        if ($isWord || count($pieces) > 1 || isset($pieces[0]) && $pieces[0]->until < min($until, $own)) {
            throw (new Violations\LengthOfPieces(length: $request->length->value, nearest: $nearest))->at($request->source->path);
        }

        return new self($until <= $own ? null : $until, $first === 0 && $until >= $own ? '' : sprintf('%d#-%d#', $first, $until));
    }
}
