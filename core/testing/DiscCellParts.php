<?php

declare(strict_types=1);

namespace Octavox\Core\Testing;

/** What a cell of a disc that is written shall hold. */
final readonly class DiscCellParts
{
    /**
     * @param  list<string>  $pictures  a 25th of a second each
     * @param  list<list<array{string, int}>>  $sounds  of each sound track its frames, and their times in ticks from the cell's begin
     * @param  bool  $begins  whether a chapter begins with it
     * @param  ?int  $clock  ticks at which its clock begins; null where it goes on from the cell before
     * @param  ?self  $angle  what another camera saw meanwhile
     */
    public function __construct(public array $pictures, public array $sounds, public bool $begins = true, public ?int $clock = null,
        public ?self $angle = null) {}

    public function ticks(): int
    {
        return 3600 * count($this->pictures);
    }
}
