<?php

declare(strict_types=1);

namespace App\Sources\Models;

use App\Lists\Humanize;
use App\Sources\Values\AnalysisFinding;
use Illuminate\Database\Eloquent\Model;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Level;

/**
 * One stream inside a source, as lists show it; the exact facts are in the source's reading.
 *
 * @property int $id
 * @property int $source_id
 * @property int $number
 * @property string $kind
 * @property string $codec
 * @property string $format
 * @property ?string $language
 * @property ?int $rate
 * @property ?int $channels
 * @property ?string $layout
 * @property ?float $kbps
 * @property ?int $samples
 * @property float $starts
 * @property ?int $width
 * @property ?int $height
 * @property ?float $per_second
 * @property ?array<array-key, mixed> $analysis what was measured
 * @property ?array<array-key, mixed> $analysis_findings
 * @property ?string $analysis_error why it could not be analysed
 */
final class Track extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['analysis' => 'array', 'analysis_findings' => 'array'];

    /** Where its waveforms are drawn. */
    public function waveformPath(): string
    {
        return sprintf('%s/waveforms/%d-%d.waveform', config()->string('octavox.home'), $this->source_id, $this->number);
    }

    /** What was measured; null as long as nothing is, or where it is not understood any more. */
    public function measured(): ?Measurements
    {
        try {
            return $this->analysis === null ? null : Measurements::fromArray($this->analysis);
        } catch (\UnexpectedValueException $broken) {
            report($broken);

            return null;
        }
    }

    /** @return list<string> of its channels, in their order */
    public function letters(Reading $facts): array
    {
        return ($facts->track($this->number)->sound->layout ?? Layout::undeclared(max(1, (int) $this->channels)))->names();
    }

    /** Its loudness, range and true peak in a line; empty as long as nothing is measured. */
    public function measuredLine(): string
    {
        $measured = $this->measured();
        if ($measured === null) {
            return '';
        }
        $range = $measured->loudness->range;

        return sprintf('loudness %s · range %s · true peak %s',
            $measured->loudness->integrated === null ? 'none' : number_format($measured->loudness->integrated, 1).' LUFS',
            $range === null ? '–' : number_format($range, 1).' LU',
            Humanize::decibels((new Level($measured->truePeak(), 0.0))->peakDecibels()));
    }

    public function isBeingAnalyzed(): bool
    {
        return $this->kind === 'sound' && $this->analysis_error === null && $this->measured() === null;
    }

    /** @return list<AnalysisFinding> */
    public function findings(): array
    {
        return array_map(fn (mixed $finding): AnalysisFinding => AnalysisFinding::fromArray(is_array($finding) ? $finding : []),
            array_values($this->analysis_findings ?? []));
    }
}
