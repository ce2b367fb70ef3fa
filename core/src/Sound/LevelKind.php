<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** By what a level is set. */
enum LevelKind: string
{
    case Gain = 'gain';
    case Peak = 'peak';
    case Rms = 'rms';
    case Loudness = 'lufs';

    public function unit(): string
    {
        return match ($this) {
            self::Gain => 'dB',
            self::Peak, self::Rms => 'dBFS',
            self::Loudness => 'LUFS',
        };
    }

    /** @return array{float, float} the lowest and highest value that make sense */
    public function bounds(): array
    {
        return match ($this) {
            self::Gain => [-60.0, 60.0],
            self::Peak => [-60.0, 0.0],
            self::Rms => [-70.0, -3.0],
            self::Loudness => [-60.0, -5.0],
        };
    }
}
