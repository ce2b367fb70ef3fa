<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/** Writes bit fields, most significant bit first. */
final class BitWriter
{
    private string $bytes = '';

    private int $held = 0;

    private int $heldBits = 0;

    /** The lowest $count bits (0 to 32) of $value. */
    public function bits(int $value, int $count): self
    {
        $this->held = ($this->held << $count) | ($value & ((1 << $count) - 1));
        $this->heldBits += $count;
        while ($this->heldBits >= 8) {
            $this->heldBits -= 8;
            $this->bytes .= chr(($this->held >> $this->heldBits) & 0xFF);
            $this->held &= (1 << $this->heldBits) - 1;
        }

        return $this;
    }

    /** Fills the last byte with zero bits. */
    public function align(): self
    {
        return $this->heldBits === 0 ? $this : $this->bits(0, 8 - $this->heldBits);
    }

    /** Appends whole bytes; only where the position is a byte's begin. */
    public function append(string $bytes): self
    {
        if ($this->heldBits !== 0) {
            throw new \LogicException('Whole bytes can only be appended at a byte border.');
        }
        $this->bytes .= $bytes;

        return $this;
    }

    public function bytes(): string
    {
        return (clone $this)->align()->bytes;
    }
}
