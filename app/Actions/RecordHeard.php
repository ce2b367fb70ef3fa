<?php

declare(strict_types=1);

namespace App\Actions;

use App\Models\Source;
use App\Models\Track;
use Octavox\Core\Listening\HeardFindings;
use Octavox\Core\Listening\Measured;
use Octavox\Core\Reading\Finding;

/** Keeps what listening to a track has found, or why it could not be listened to. */
final class RecordHeard
{
    private const WEIGHT = ['stop' => 3, 'warn' => 2, 'note' => 1];

    /** @param  array<array-key, mixed>  $figures what {@see Measured::toArray()} gave */
    public function heard(Source $source, Track $track, array $figures): void
    {
        $own = $source->facts()?->track($track->number);
        $findings = $own === null ? [] : array_map(fn (Finding $finding): array => $finding->toArray(), HeardFindings::of($own, Measured::fromArray($figures)));
        $track->update(['heard' => $figures, 'heard_findings' => $findings]);
        foreach ($findings as $finding) {
            if ((self::WEIGHT[$finding['level']] ?? 0) > (self::WEIGHT[(string) $source->worst] ?? 0)) {
                $source->update(['worst' => $finding['level']]);
            }
        }
    }

    public function unheard(Track $track, string $says): void
    {
        $track->update(['heard_says' => $says]);
    }
}
