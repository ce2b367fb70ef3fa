<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** Kind, bit depth and byte order of PCM samples. */
final readonly class SampleFormat
{
    public function __construct(public SampleKind $kind, public int $bits, public bool $bigEndian = false) {}

    public static function signed(int $bits, bool $bigEndian = false): self
    {
        return new self(SampleKind::Signed, $bits, $bigEndian);
    }

    public static function unsigned8(): self
    {
        return new self(SampleKind::Unsigned, 8);
    }

    public static function float(int $bits, bool $bigEndian = false): self
    {
        return new self(SampleKind::Float, $bits, $bigEndian);
    }

    /** Whether this is a format that exists: whole bytes up to 64 bits, float 32 or 64, A-law and µ-law 8. */
    public function exists(): bool
    {
        return match ($this->kind) {
            SampleKind::Signed => $this->bits >= 8 && $this->bits <= 64 && $this->bits % 8 === 0,
            SampleKind::Unsigned => $this->bits === 8,
            SampleKind::Float => in_array($this->bits, [32, 64], true),
            SampleKind::ALaw, SampleKind::MuLaw => $this->bits === 8,
        };
    }

    public function bytes(): int
    {
        return intdiv($this->bits, 8);
    }

    public function equals(self $other): bool
    {
        return $this->kind === $other->kind && $this->bits === $other->bits
            && ($this->bits === 8 || $this->bigEndian === $other->bigEndian);
    }

    public function label(): string
    {
        return match ($this->kind) {
            SampleKind::Float => $this->bits.'-bit float',
            SampleKind::ALaw => 'A-law',
            SampleKind::MuLaw => 'µ-law',
            default => $this->bits.'-bit',
        };
    }
}
