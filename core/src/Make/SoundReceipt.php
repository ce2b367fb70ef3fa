<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Json\Fields;
use Octavox\Core\Sound\Level;

/** What one sound track of a video became. */
final readonly class SoundReceipt
{
    /**
     * @param  bool  $isKept  whether its packets were copied
     * @param  ?Level  $before  of the sound as it came in; null where nobody has decoded it
     */
    public function __construct(public int $track, public bool $isKept, public int $samples, public string $format, public string $layout,
        public ?Level $before, public ?Level $after) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'track' => $this->track, 'action' => $this->isKept ? 'kept' : 'remade', 'samples' => $this->samples, 'format' => $this->format,
            'layout' => $this->layout,
            'peak_before' => $this->before?->peakDecibels(), 'rms_before' => $this->before?->rmsDecibels(),
            'peak_after' => $this->after?->peakDecibels(), 'rms_after' => $this->after?->rmsDecibels(),
        ];
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        return new self(
            $fields->number('track'), $fields->text('action') === 'kept', $fields->number('samples'), $fields->text('format'),
            $fields->text('layout'),
            Level::ofDecibels($fields->floatOrNull('peak_before'), $fields->floatOrNull('rms_before')),
            Level::ofDecibels($fields->floatOrNull('peak_after'), $fields->floatOrNull('rms_after')),
        );
    }
}
