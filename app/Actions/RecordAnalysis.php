<?php

declare(strict_types=1);

namespace App\Actions;

use App\Models\Source;
use App\Models\Track;
use App\Values\Severity;
use Octavox\Core\Analysis\AnalysisFindings;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Reading\Finding;

/** Keeps what listening to a track has found, or why it could not be listened to. */
final class RecordAnalysis
{
    /** @param  array<array-key, mixed>  $figures what {@see Measurements::toArray()} gave */
    public function heard(Source $source, Track $track, array $figures): void
    {
        $own = $source->facts()?->track($track->number);
        $findings = $own === null ? [] : AnalysisFindings::of($own, Measurements::fromArray($figures));
        $track->update(['heard' => $figures, 'heard_findings' => array_map(fn (Finding $finding): array => $finding->toArray(), $findings)]);
        $source->update(['worst' => Severity::worst($source->worst, ...array_map(fn (Finding $finding): string => $finding->level->value, $findings))]);
    }

    public function unheard(Track $track, string $says): void
    {
        $track->update(['heard_says' => $says]);
    }
}
