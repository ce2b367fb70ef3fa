<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Sources\Models\Source;
use App\Sources\Models\Track;
use Octavox\Core\Analysis\AnalysisFindings;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Media\Severity;
use Octavox\Core\Reading\Finding;

/** Keeps what the analysis of a track has found, or why there is none. */
final class RecordAnalysis
{
    public function analyzed(Source $source, Track $track, Measurements $measured): void
    {
        $own = $source->facts()?->track($track->number);
        $findings = $own === null ? [] : AnalysisFindings::find($own, $measured);
        $track->update(['analysis' => $measured->toArray(),
            'analysis_findings' => array_map(fn (Finding $finding): array => $finding->toArray(), $findings)]);
        $source->update(['worst' => Severity::worst(Severity::tryFrom((string) $source->worst),
            ...array_map(fn (Finding $finding): Severity => $finding->severity, $findings))?->value]);
    }

    public function failed(Track $track, string $says): void
    {
        $track->update(['analysis_error' => $says]);
    }
}
