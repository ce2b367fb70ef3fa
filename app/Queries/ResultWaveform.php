<?php

declare(strict_types=1);

namespace App\Queries;

use App\Jobs\DrawResult;
use App\Models\Result;
use App\Models\Track;
use Octavox\Core\Analysis\Waveform;

/** The waveform of the track that a result was made of, or of the result itself, as far as it is drawn. */
final class ResultWaveform
{
    public function __construct(private readonly OpenWaveform $waveforms)
    {
    }

    public function before(Result $result): ?Waveform
    {
        $number = $result->plannedAs()->sound()->track ?? 0;
        $track = Track::query()->where('source_id', $result->source_id)->where('number', $number)->first();

        return $track === null ? null : $this->waveforms->of($track);
    }

    /** Null while a worker draws it, which it is told to do where nobody has. */
    public function after(Result $result): ?Waveform
    {
        if ($result->isThere() && ! is_file($result->waveformPath())) {
            DrawResult::dispatch($result->id);
        }

        return $this->waveforms->at($result->waveformPath());
    }
}
