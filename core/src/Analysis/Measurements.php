<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Json\Fields;
use Octavox\Core\Sound\Level;
use Octavox\Core\Sound\LevelKind;
use Octavox\Core\Sound\Loudness;

/** What the analysis of one whole sound track has found. */
final readonly class Measurements
{
    /** Of the stored document; the first one did not tell it and is alike otherwise. */
    public const VERSION = 2;

    /**
     * @param  list<Level>  $levels  of each channel
     * @param  list<float>  $truePeaks  of each channel, 1.0 is full scale
     * @param  int  $clips  how often it clips
     * @param  list<int>  $places  samples at which it clips, the first of them
     * @param  ?StereoImage  $image  of stereo tracks
     * @param  int  $samples  that were measured
     * @param  list<?float>  $alone  LUFS of each channel as if it were heard alone
     * @param  ?TriedSizes  $packed  what stretches of it took when they were compressed
     */
    public function __construct(
        public array $levels,
        public array $truePeaks,
        public Loudness $loudness,
        public int $clips,
        public array $places,
        public ?StereoImage $image,
        public int $samples,
        public int $rate,
        public array $alone = [],
        public ?TriedSizes $packed = null,
    ) {}

    /** Over all channels. */
    public function level(): Level
    {
        $peak = max([0.0, ...array_map(fn (Level $level): float => $level->peak, $this->levels)]);
        $energy = array_sum(array_map(fn (Level $level): float => $level->rms ** 2, $this->levels));

        return new Level($peak, sqrt($energy / max(1, count($this->levels))));
    }

    /** dBFS or LUFS of what a level is set by; null where there is only silence. */
    public function figure(LevelKind $kind): ?float
    {
        return match ($kind) {
            LevelKind::Gain => 0.0,
            LevelKind::Peak => $this->level()->peakDecibels(),
            LevelKind::Rms => $this->level()->rmsDecibels(),
            LevelKind::Loudness => $this->loudness->integrated,
        };
    }

    public function truePeak(): float
    {
        return max([0.0, ...$this->truePeaks]);
    }

    public function withPacked(?TriedSizes $tried): self
    {
        return new self($this->levels, $this->truePeaks, $this->loudness, $this->clips, $this->places, $this->image, $this->samples,
            $this->rate, $this->alone, $tried);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'version' => self::VERSION,
            'samples' => $this->samples,
            'rate' => $this->rate,
            'channels' => array_map(fn (Level $level, float $true, int $channel): array => ['peak' => $level->peak, 'rms' => $level->rms,
                'true_peak' => $true, 'lufs' => self::rounded($this->alone[$channel] ?? null)], $this->levels, $this->truePeaks,
                array_keys($this->levels)),
            'peak_db' => $this->level()->peakDecibels(),
            'rms_db' => $this->level()->rmsDecibels(),
            'true_peak_db' => (new Level($this->truePeak(), 0.0))->peakDecibels(),
            'lufs' => self::rounded($this->loudness->integrated),
            'range_lu' => self::rounded($this->loudness->range),
            'momentary_lufs' => self::rounded($this->loudness->momentary),
            'short_term_lufs' => self::rounded($this->loudness->shortTerm),
            'packed_bits' => $this->packed?->bits,
            'vorbis_shares' => $this->packed?->vorbis,
            'clips' => $this->clips,
            'clips_at' => $this->places,
            'image' => $this->image === null ? null : [
                'correlation' => $this->image->correlation, 'difference' => $this->image->difference, 'gap' => $this->image->gap,
                'unsteady' => $this->image->unsteady, 'treble' => $this->image->treble, 'bass' => $this->image->bass,
                'windows' => $this->image->windows,
            ],
        ];
    }

    /**
     * @param  array<array-key, mixed>  $values  what {@see self::toArray()} gave
     *
     * @throws \UnexpectedValueException where it is not that
     */
    public static function fromArray(array $values): self
    {
        if (is_int($values['version'] ?? null) && $values['version'] > self::VERSION) {
            throw new \UnexpectedValueException('An analysis is of a version to come.');
        }
        $read = new Fields($values);
        $number = fn (string $name): ?float => $read->isNull($name) ? null : $read->float($name);
        $image = $read->optional('image');

        return new self(
            array_map(fn (Fields $channel): Level => new Level($channel->float('peak'), $channel->float('rms')), $read->each('channels')),
            array_map(fn (Fields $channel): float => $channel->float('true_peak'), $read->each('channels')),
            new Loudness($number('lufs'), $number('range_lu'), $number('momentary_lufs'), $number('short_term_lufs')),
            $read->number('clips'),
            $read->numbers('clips_at'),
            $image === null ? null : new StereoImage($image->float('correlation'), $image->float('difference'), $image->float('gap'),
                $image->float('unsteady'), $image->float('treble'), $image->float('bass'), $image->number('windows')),
            $read->number('samples'),
            $read->number('rate'),
            array_map(fn (Fields $channel): ?float => $channel->isNull('lufs') ? null : $channel->float('lufs'), $read->each('channels')),
            self::tried($read),
        );
    }

    private static function tried(Fields $read): ?TriedSizes
    {
        $shares = $read->optional('vorbis_shares')?->all() ?? [];
        ksort($shares);

        return $read->isNull('packed_bits') ? null
            : new TriedSizes($read->float('packed_bits'), array_filter($shares, fn (mixed $share): bool => is_float($share)
            || is_int($share)));
    }

    private static function rounded(?float $value): ?float
    {
        return $value === null ? null : round($value, 2);
    }
}
