<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** The level that a sound is to have: a gain, or a peak, RMS or loudness to reach without the true peak rising above a ceiling. */
final readonly class LevelTarget
{
    /** dBTP: EBU R 128, recommendation (h). */
    public const CEILING = -1.0;

    private function __construct(public LevelKind $kind, public float $value, public float $ceiling) {}

    /**
     * `gain:+3`, `peak:-1`, `peak:90%`, `rms:-20`, `lufs:-16`; a ceiling for the true peak of RMS and loudness behind a further colon.
     *
     * @throws InvalidLevel
     */
    public static function parse(string $text): self
    {
        if (preg_match('/^(gain|peak|rms|lufs):([-+−]?\d+(?:\.\d+)?)(%?)(?::([-−]?\d+(?:\.\d+)?))?$/u',
            strtolower(trim($text)), $parts) !== 1) {
            throw InvalidLevel::unreadable($text);
        }
        $kind = LevelKind::from($parts[1]);
        $value = (float) str_replace('−', '-', $parts[2]);
        if ($parts[3] === '%') {
            if ($kind !== LevelKind::Peak || $value <= 0.0 || $value > 100.0) {
                throw InvalidLevel::unreadable($text);
            }
            $value = 20 * log10($value / 100);
        }
        [$least, $most] = $kind->bounds();
        if ($value < $least || $value > $most) {
            throw InvalidLevel::beyond($kind, $value);
        }
        $ceiling = isset($parts[4]) ? (float) str_replace('−', '-', $parts[4]) : self::CEILING;
        if ($ceiling > 0.0 || $ceiling < -20.0) {
            throw InvalidLevel::ceiling($ceiling);
        }

        return new self($kind, $value, $ceiling);
    }

    /** As {@see self::parse()} reads it. */
    public function __toString(): string
    {
        return sprintf('%s:%s%s', $this->kind->value, self::number($this->value),
            $this->hasCeiling() && $this->ceiling !== self::CEILING ? ':'.self::number($this->ceiling) : '');
    }

    public function hasCeiling(): bool
    {
        return $this->kind === LevelKind::Rms || $this->kind === LevelKind::Loudness;
    }

    /**
     * What reaches the target, as a factor; where the ceiling stands in the way, as much as it allows.
     *
     * @param  ?float  $measured  dBFS or LUFS of what the target is about, null where there is only silence
     * @param  float  $truePeak  1.0 is full scale
     */
    public function gain(?float $measured, float $truePeak): AppliedGain
    {
        if ($this->kind === LevelKind::Gain) {
            return new AppliedGain($this->value, false);
        }
        if ($measured === null || $truePeak <= 0.0) {
            return new AppliedGain(0.0, false);
        }
        $wanted = $this->value - $measured;
        $possible = $this->ceiling - 20 * log10($truePeak);

        return $this->hasCeiling() && $wanted > $possible ? new AppliedGain($possible, true) : new AppliedGain($wanted, false);
    }

    private static function number(float $value): string
    {
        return rtrim(rtrim(number_format($value, 2, '.', ''), '0'), '.');
    }
}
