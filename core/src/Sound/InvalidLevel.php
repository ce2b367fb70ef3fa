<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Failure;

/** A level that cannot be read or reached. */
final class InvalidLevel extends Failure
{
    public static function unreadable(string $text): self
    {
        return new self(sprintf('The level “%s” cannot be read; write it like gain:+3, peak:-1, peak:90%%, rms:-20 or lufs:-16.',
            mb_substr($text, 0, 40)));
    }

    public static function beyond(LevelKind $kind, float $value): self
    {
        [$least, $most] = $kind->bounds();

        return new self(sprintf('A level of %g %s cannot be made; choose one between %g and %g %s.', $value, $kind->unit(), $least,
            $most, $kind->unit()));
    }

    public static function ceiling(float $value): self
    {
        return new self(sprintf('A ceiling of %g dBFS makes no sense; choose one between −20 and 0 dBFS.', $value));
    }

    public function code(): string
    {
        return 'wrong-level';
    }
}
