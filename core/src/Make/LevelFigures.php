<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Json\Fields;

/** The figures of a sound's level that a receipt tells; each is null where there is only silence. */
final readonly class LevelFigures
{
    /**
     * @param  ?float  $peak  dBFS
     * @param  ?float  $rms  dBFS
     * @param  ?float  $truePeak  dBTP
     * @param  ?float  $loudness  LUFS
     * @param  ?float  $range  LU
     */
    public function __construct(public ?float $peak, public ?float $rms, public ?float $truePeak, public ?float $loudness,
        public ?float $range) {}

    public static function of(Measurements $measured): self
    {
        return self::fromFields(new Fields($measured->toArray()));
    }

    /** @return array<string, ?float> */
    public function toArray(): array
    {
        return ['peak_db' => $this->peak, 'rms_db' => $this->rms, 'true_peak_db' => $this->truePeak, 'lufs' => $this->loudness,
            'range_lu' => $this->range];
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        return new self(...array_map($fields->floatOrNull(...), ['peak_db', 'rms_db', 'true_peak_db', 'lufs', 'range_lu']));
    }
}
