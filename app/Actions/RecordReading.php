<?php

declare(strict_types=1);

namespace App\Actions;

use App\Jobs\AnalyzeSource;
use App\Models\Source;
use App\Models\Track;
use App\Values\Severity;
use App\Values\SourceState;
use Illuminate\Support\Facades\DB;

/** Keeps what the reader said of a source, or why it could not be read. */
final class RecordReading
{
    /** @param  array<string, mixed>  $reading one entry of `read --json` */
    public function readable(Source $source, array $reading): void
    {
        DB::transaction(function () use ($source, $reading): void {
            $tracks = array_filter((array) ($reading['tracks'] ?? []), is_array(...));
            $source->tracks()->delete();
            Track::query()->insert(array_map(fn (array $track): array => $this->row($source, $track), $tracks));
            $picture = collect($tracks)->firstWhere('kind', 'picture');
            $source->update([
                'state' => SourceState::Ready,
                'container' => $reading['container'],
                'bytes' => $reading['bytes'],
                'seconds' => $reading['seconds'],
                'picture' => is_array($picture) ? $picture['form'] : null,
                'worst' => $this->worst((array) ($reading['findings'] ?? [])),
                'reading' => $reading,
                'error_code' => null,
                'error_says' => null,
            ]);
        });
        AnalyzeSource::dispatch($source->id);
    }

    public function unreadable(Source $source, string $code, string $says): void
    {
        $source->update(['state' => SourceState::Unreadable, 'error_code' => $code, 'error_says' => $says, 'worst' => 'stop', 'reading' => null]);
    }

    /**
     * @param  array<string, mixed>  $track
     * @return array<string, mixed>
     */
    private function row(Source $source, array $track): array
    {
        $isPicture = $track['kind'] === 'picture';

        return [
            'source_id' => $source->id, 'number' => $track['number'], 'kind' => $track['kind'], 'codec' => $track['codec'],
            'form' => $track['form'], 'language' => $track['language'] ?? null, 'rate' => $isPicture ? null : ($track['rate'] ?? null),
            'channels' => $track['channels'] ?? null, 'layout' => $track['layout'] ?? null, 'kbps' => $track['kbps'] ?? null,
            'samples' => $track['samples'] ?? null, 'starts' => $track['starts'] ?? 0, 'width' => $track['width'] ?? null,
            'height' => $track['height'] ?? null, 'per_second' => $isPicture ? ($track['rate'] ?? null) : null,
        ];
    }

    /** @param  array<array-key, mixed>  $findings */
    private function worst(array $findings): ?string
    {
        $levels = array_map(fn (mixed $finding): string => is_array($finding) && is_string($finding['level']) ? $finding['level'] : 'note', $findings);

        return Severity::worst(...$levels);
    }
}
