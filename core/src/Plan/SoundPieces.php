<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Failure;
use Octavox\Core\Media\Segment;
use Octavox\Core\Sound\Piece;
use Octavox\Core\Tag\Chapter;

/** The shapes of the results of one sound: several where channels or pieces become results of their own. */
final readonly class SoundPieces
{
    public function __construct(private SoundContext $sound) {}

    /**
     * @return non-empty-list<Shape>
     *
     * @throws Failure
     */
    public function shapes(): array
    {
        $sound = $this->sound;
        $chapters = array_map(fn (Chapter $chapter): int => $this->sample($chapter->starts), $sound->source->chapters);
        $ends = array_map(fn (Chapter $chapter): ?int => $chapter->disc?->ends === null ? null : $this->sample($chapter->disc->ends),
            $sound->source->chapters);
        $builder = new ShapeBuilder($sound->from->layout, $sound->from->rate, Segment::total($sound->whole),
            $sound->source->picture()->picture->perSecond ?? 0.0, $chapters, array_filter($ends, fn (?int $end): bool => $end !== null));
        $emphasised = $sound->spec->deEmphasis === true ? $this->emphasised($chapters) : [];

        return array_map(fn (Shape $shape): Shape => $shape->joining(array_slice($sound->numbers, 1))
            ->deemphasising($emphasised, Segment::total($sound->whole)), $builder->shapes($sound->spec->withPieces($this->pieces())));
    }

    /**
     * What is asked of pieces; those between silences as they were found, none as long as nobody has looked.
     *
     * @throws Failure
     */
    private function pieces(): string
    {
        $pieces = $this->sound->planned->pieces;
        if ($this->sound->video !== null && $pieces !== '') {
            throw $this->sound->refuse(new Violations\VideoPieces);
        }
        if (! str_starts_with($pieces, 'silences')) {
            return $pieces;
        }
        $key = SourceKnowledge::silenceKey($this->sound->numbers[0], $pieces);
        $found = $this->sound->knowledge->silences[$key] ?? '';
        if ($found === '') {
            $this->sound->wanted->silences[$key] = [$this->sound->numbers[0], (string) $this->sound->spec->pieces];
        }

        return $found;
    }

    /** @param  float  $seconds  of the source's time */
    private function sample(float $seconds): int
    {
        return max(0, (int) round($seconds * $this->sound->from->rate) - $this->sound->start);
    }

    /**
     * Tracks of a disc that were recorded with pre-emphasis; those that follow each other are one stretch.
     *
     * @param  list<int>  $chapters  samples at which they begin
     * @return list<Piece>
     */
    private function emphasised(array $chapters): array
    {
        $stretches = [];
        foreach ($this->sound->source->chapters as $index => $chapter) {
            if ($chapter->disc?->isEmphasised !== true) {
                continue;
            }
            $until = $chapters[$index + 1] ?? Segment::total($this->sound->whole);
            $last = $stretches[count($stretches) - 1] ?? null;
            if ($last !== null && $last->until === $chapters[$index]) {
                array_pop($stretches);
            }
            $stretches[] = new Piece($last?->until === $chapters[$index] ? $last->from : $chapters[$index], $until);
        }

        return $stretches;
    }
}
