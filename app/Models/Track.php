<?php

declare(strict_types=1);

namespace App\Models;

use App\Values\AnalysisFinding;
use Illuminate\Database\Eloquent\Model;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;

/**
 * One stream inside a source, as lists show it; the exact facts are in the source's reading.
 *
 * @property int $id
 * @property int $source_id
 * @property int $number
 * @property string $kind
 * @property string $codec
 * @property string $form
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
 * @property ?array<array-key, mixed> $heard what listening has measured
 * @property ?array<array-key, mixed> $heard_findings
 * @property ?string $heard_says why it could not be listened to
 */
final class Track extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['heard' => 'array', 'heard_findings' => 'array'];

    /** Where its ribbons are drawn. */
    public function ribbonPath(): string
    {
        return sprintf('%s/ribbons/%d-%d.ribbon', config('octavox.home'), $this->source_id, $this->number);
    }

    /** What listening has measured; null as long as it has not. */
    public function measured(): ?Measurements
    {
        return $this->heard === null ? null : Measurements::fromArray($this->heard);
    }

    /** @return list<string> of its channels, in their order */
    public function letters(Reading $facts): array
    {
        return ($facts->track($this->number)->sound->layout ?? Layout::undeclared(max(1, (int) $this->channels)))->names();
    }

    public function isBeingHeard(): bool
    {
        return $this->kind === 'sound' && $this->heard === null && $this->heard_says === null;
    }

    /** @return list<AnalysisFinding> */
    public function findings(): array
    {
        return array_map(fn (mixed $finding): AnalysisFinding => AnalysisFinding::fromArray(is_array($finding) ? $finding : []), array_values($this->heard_findings ?? []));
    }
}
