<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Sound\Piece;
use Octavox\Core\Tag\Chapter;

/** The chapters of a result: those of the source that are heard in it, at its own times. */
final class ResultChapters
{
    /**
     * @param  list<Chapter>  $chapters  of the source
     * @param  int  $rate  samples a second of the source's sound
     * @param  int  $presentationStart  samples of the source's time at which the uncut sound begins
     * @param  int  $length  samples of the uncut sound
     * @return list<Chapter>
     */
    public static function place(array $chapters, int $rate, int $presentationStart, int $length, Shape $shape): array
    {
        usort($chapters, fn (Chapter $one, Chapter $other): int => $one->starts <=> $other->starts);
        $places = array_map(fn (Chapter $chapter): int => (int) round($chapter->starts * $rate) - $presentationStart, $chapters);
        $result = [];
        $at = 0;
        $running = null;
        foreach (self::pieces($shape, $length) as $piece) {
            foreach ($places as $index => $place) {
                // One that has begun before the piece goes on in it.
                $isHeard = $place < $piece->until && ($places[$index + 1] ?? PHP_INT_MAX) > $piece->from;
                if ($isHeard && $index !== $running) {
                    $result[] = new Chapter(($at + max(0, $place - $piece->from)) / $rate, $chapters[$index]->title);
                    $running = $index;
                }
            }
            $at += $piece->length();
        }

        return $result;
    }

    /** @return list<Piece> */
    private static function pieces(Shape $shape, int $length): array
    {
        $kept = $shape->kept;

        return $shape->pieces === [] ? [new Piece(0, $length)]
            : array_map(fn (Piece $piece): Piece => $kept === null ? $piece
            : new Piece($piece->from - $kept->early, $piece->until + $kept->late), $shape->pieces);
    }
}
