<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Decode\FrameReader;
use Octavox\Core\Failure;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\VectorMath;

/** Whether two files hold the same sound: length, offset, and the level of what differs, over all and per channel. */
final readonly class Comparison
{
    private const FRAMES = 16384;

    /** How far apart the same sound is looked for, in seconds. */
    private const REACH = 1.0;

    /** Frames that are laid over each other to find the offset. */
    private const PATTERN = 8192;

    /** Samples: half a millisecond of 192 kHz. */
    private const IN_STEP = 96;

    /** A difference this far below the sound needs no search for a better place, in dB. */
    private const CLOSE = -20.0;

    /**
     * @param  array{int, int}  $samples
     * @param  int  $offset  samples by which the second is late
     * @param  ?float  $difference  dB relative to the first; null where nothing differs or nothing can be compared
     * @param  list<?float>  $channels  the same for each channel
     * @param  int  $late  samples by which the second would be late where both are laid at the beginning of their pictures
     */
    private function __construct(public array $samples, public int $offset, public ?float $difference, public bool $identical,
        public array $channels, private bool $comparable, private int $late = 0) {}

    /** @throws Failure */
    public static function of(string $a, string $b): self
    {
        $first = FrameReader::open($a);
        $second = FrameReader::open($b);
        $samples = [$first->frames, $second->frames];
        if ($first->rate !== $second->rate || $first->channels !== $second->channels) {
            return new self($samples, 0, null, false, [], false);
        }
        $straight = self::at($a, $b, 0, $samples);
        if ($straight->identical || $straight->difference === null || $straight->difference < self::CLOSE) {
            return $straight;
        }
        $offset = self::offset($a, $b, $first->rate);
        $shifted = $offset === 0 ? $straight : self::at($a, $b, $offset, $samples);

        return ($shifted->difference ?? -999.0) < $straight->difference ? $shifted : $straight;
    }

    /**
     * @param  array{int, int}  $samples
     *
     * @throws Failure
     */
    private static function at(string $a, string $b, int $offset, array $samples): self
    {
        $first = FrameReader::open($a);
        $second = FrameReader::open($b);
        $first->skip(max(0, -$offset));
        $second->skip(max(0, $offset));
        $channels = $first->channels;
        $x = new FloatBuffer(self::FRAMES * $channels);
        $y = new FloatBuffer(self::FRAMES * $channels);
        $sound = array_fill(0, $channels, 0.0);
        $difference = array_fill(0, $channels, 0.0);
        $math = VectorMath::get();
        do {
            $count = min($first->read($x, self::FRAMES), $second->read($y, self::FRAMES));
            $math->add($y, 0, $x, 0, $count * $channels, -1.0);
            for ($channel = 0; $channel < $channels && $count > 0; $channel++) {
                $sound[$channel] += $math->energy($x, $channel, $count, $channels);
                $difference[$channel] += $math->energy($y, $channel, $count, $channels);
            }
        } while ($count === self::FRAMES);
        $each = array_map(self::relative(...), $difference, $sound);

        return new self($samples, $offset, self::relative(array_sum($difference), array_sum($sound)),
            array_sum($difference) === 0.0 && $samples[0] === $samples[1] && $offset === 0, $each, true, $first->late - $second->late);
    }

    /**
     * Lays a piece from the middle of the first over the second, at every place within reach, and takes where they agree most.
     *
     * @throws Failure
     */
    private static function offset(string $a, string $b, int $rate): int
    {
        $first = FrameReader::open($a);
        $second = FrameReader::open($b);
        $reach = (int) (self::REACH * $rate);
        $middle = max(0, intdiv(min($first->frames, $second->frames) - self::PATTERN, 2));
        $reach = min($reach, $middle);
        $channels = $first->channels;
        $pattern = new FloatBuffer(self::PATTERN * $channels);
        $field = new FloatBuffer((self::PATTERN + 2 * $reach) * $channels);
        $first->skip($middle);
        $second->skip($middle - $reach);
        $length = $first->read($pattern, self::PATTERN);
        $there = $second->read($field, self::PATTERN + 2 * $reach);
        $best = 0;
        $most = -INF;
        for ($lag = 0; $lag + $length <= $there; $lag++) {
            $agreement = VectorMath::get()->product($pattern, 0, $channels, $field, $lag * $channels, $channels, $length);
            if ($agreement > $most) {
                $most = $agreement;
                $best = $lag - $reach;
            }
        }

        return $best;
    }

    private static function relative(float $difference, float $sound): ?float
    {
        return $difference > 0.0 ? round(10 * log10($difference / max($sound, 1e-30)), 2) : null;
    }

    /**
     * Whether both fit the same picture, though the sound of one of them begins later in its file; some containers tell times in
     * milliseconds only.
     */
    private function isInStep(): bool
    {
        return abs($this->offset - $this->late) <= self::IN_STEP;
    }

    /** @return array<string, mixed> as `compare --json` prints it */
    public function toArray(): array
    {
        return [
            'same_length' => $this->samples[0] === $this->samples[1],
            'samples' => $this->samples,
            'offset' => $this->offset,
            'in_step' => $this->comparable && $this->isInStep(),
            'difference_db' => $this->difference,
            'identical' => $this->identical,
            'comparable' => $this->comparable,
            'channels' => $this->channels,
        ];
    }

    public function describe(): string
    {
        if (! $this->comparable) {
            return 'These cannot be laid over each other: their rates or channels differ.';
        }

        return sprintf(
            '%s; %s and %s samples%s; %s',
            $this->identical ? 'the same sound, sample for sample' : 'not the same samples',
            number_format($this->samples[0]), number_format($this->samples[1]),
            match (true) {
                $this->offset === 0 => '',
                $this->isInStep() => sprintf(', in step with the picture: the sound of one begins %s samples after it',
                    number_format(abs($this->offset))),
                default => sprintf(', the second %d samples %s', abs($this->offset), $this->offset > 0 ? 'late' : 'early'),
            },
            $this->difference === null ? 'no difference'
                : sprintf('the difference is %.1f dB against the sound (%s)', $this->difference,
                    implode(', ', array_map(fn (?float $value): string => $value === null ? 'none' : sprintf('%.1f', $value),
                        $this->channels))),
        );
    }
}
