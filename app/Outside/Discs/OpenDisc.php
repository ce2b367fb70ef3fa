<?php

declare(strict_types=1);

namespace App\Outside\Discs;

use App\Processes\AskedChild;
use App\Sources\Models\Source;
use Octavox\Core\Disc\StatedTitle;
use Octavox\Core\Failure;
use Octavox\Core\Reading\DiscContents;
use Octavox\Core\Reading\DiscPart;

/** What is on a disc, asked of a process of its own. */
final class OpenDisc
{
    private const SECONDS = 45;

    /** @throws Failure where it cannot be read */
    public function at(string $path): DiscContents
    {
        return DiscContents::fromArray((new AskedChild('disc', self::SECONDS))->answer(['path' => $path], $path, 'disc.log'));
    }

    /**
     * Whether a disc is what somebody saw who chose from it.
     *
     * @param  ?list<int>  $titles  of a video disc; null for an audio disc as a whole
     *
     * @throws Failure where it cannot be read
     */
    public function has(string $path, ?array $titles): bool
    {
        $disc = $this->at($path);
        $numbers = array_map(fn (DiscPart $part): int => $part->number, $disc->parts);

        return $disc->isVideo === ($titles !== null) && array_diff($titles ?? [], $numbers) === [];
    }

    /** @return array<int, int> numbers of the sources that its titles are already, by the number of the title */
    public function taken(string $path, DiscContents $disc): array
    {
        $known = [];
        foreach (Source::query()->where('path', $path)->get(['id', 'stated']) as $source) {
            $known[(string) $source->stated] = $source->id;
        }
        $taken = [];
        foreach (array_map(fn (DiscPart $part): int => $part->number, $disc->parts) as $number) {
            $id = $known[$disc->isVideo ? (string) new StatedTitle($number) : ''] ?? null;
            $taken += $id === null ? [] : [$number => $id];
        }

        return $taken;
    }
}
