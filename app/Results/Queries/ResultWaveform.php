<?php

declare(strict_types=1);

namespace App\Results\Queries;

use App\Results\Models\Result;
use App\Sources\Models\Track;
use App\Sources\Queries\OpenWaveform;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Illuminate\Support\Facades\Cache;
use Octavox\Core\Analysis\Waveform;
use Octavox\Core\Plan\PlanUnreadable;

/** The waveform of the track that a result was made of, or of the result itself, as far as it is drawn. */
final class ResultWaveform
{
    /** A page that waits asks more often than this; one order is enough. */
    private const SECONDS_BETWEEN_ORDERS = 60;

    public function __construct(private readonly OpenWaveform $waveforms, private readonly WorkSignal $signal) {}

    /** @throws PlanUnreadable */
    public function before(Result $result): ?Waveform
    {
        $track = $this->track($result);

        return $track === null ? null : $this->waveforms->open($track);
    }

    /**
     * Null while a worker draws it, which it is told to do where nobody has.
     *
     * @throws PlanUnreadable
     */
    public function after(Result $result): ?Waveform
    {
        if ($this->isBeingDrawn($result, 'after') && Cache::add("draw-$result->id", true, self::SECONDS_BETWEEN_ORDERS)) {
            $this->signal->request(WorkKind::Drawings, $result->id);
        }

        return $this->waveforms->at($result->waveformPath());
    }

    /** @throws PlanUnreadable */
    public function isBeingDrawn(Result $result, string $side): bool
    {
        if ($side === 'after') {
            return $result->isThere() && ! is_file($result->waveformPath());
        }
        $track = $this->track($result);

        return $track?->isBeingAnalyzed() === true;
    }

    /** @throws PlanUnreadable */
    private function track(Result $result): ?Track
    {
        return Track::query()->where('source_id', $result->source_id)->where('number', $result->plannedAs()->sound()->track ?? 0)->first();
    }
}
