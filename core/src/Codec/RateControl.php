<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** How much room a lossy encoder is given: one bit rate throughout, or a level of fidelity with whatever rate it needs. */
final readonly class RateControl
{
    /**
     * @param  int  $kbps  1000 bits a second, 0 where $quality counts or where the codec has no choice
     * @param  ?int  $quality  0 (finest) to 9 (smallest) for variable rate, else null
     * @param  bool  $exact  whether exactly this bit rate is wanted, not one as near as the format has
     * @param  ?RateMode  $mode  how it is held; null for the codec's usual way
     */
    private function __construct(public int $kbps, public ?int $quality, public bool $exact = true, public ?RateMode $mode = null) {}

    public static function none(): self
    {
        return new self(0, null);
    }

    /** Whether nothing is asked for. */
    public function isNone(): bool
    {
        return $this->kbps === 0 && $this->quality === null;
    }

    /** A bit rate, held as the codec usually does. */
    public static function exactly(int $kbps): self
    {
        return new self($kbps, null);
    }

    /** A bit rate, or as near to it as a format has it at the sound's rate. */
    public static function near(int $kbps): self
    {
        return new self($kbps, null, false);
    }

    public static function variable(int $quality): self
    {
        return new self(0, max(0, min(9, $quality)));
    }

    /** The same bit rate, held in a given way; a level of fidelity stays as it is. */
    public function held(?RateMode $mode): self
    {
        return $this->quality !== null ? $this : new self($this->kbps, null, $this->exact, $mode);
    }
}
