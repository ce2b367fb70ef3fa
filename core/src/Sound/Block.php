<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Sound\Native\FloatBuffer;

/**
 * A stretch of sound: interleaved float32, full scale ±1.0, from the first sample of a native buffer on.
 *
 * The buffer belongs to the stage that gave the block and is good until that stage is called again.
 */
final readonly class Block
{
    /** @param  int  $offset frames at the head of the buffer that do not belong to the block */
    public function __construct(public FloatBuffer $buffer, public int $frames, public int $channels, public int $offset = 0) {}

    public function samples(): int
    {
        return $this->frames * $this->channels;
    }

    /** Index of the first sample in the buffer. */
    public function first(): int
    {
        return $this->offset * $this->channels;
    }

    /** The frames from $from on, $count of them, without copying. */
    public function part(int $from, int $count): self
    {
        return new self($this->buffer, $count, $this->channels, $this->offset + $from);
    }

    /** The samples as float32 bytes of this machine's order. */
    public function bytes(): string
    {
        return $this->buffer->bytes($this->first(), $this->samples());
    }

    /**
     * From plain numbers, for tests and for making signals.
     *
     * @param  list<list<float>>  $channels  one list of samples a channel, all of equal length
     *
     * @throws BlockTooLarge
     */
    public static function fromChannels(array $channels): self
    {
        $count = count($channels);
        $frames = $count === 0 ? 0 : count($channels[0]);
        $bytes = '';
        for ($frame = 0; $frame < $frames; $frame++) {
            for ($channel = 0; $channel < $count; $channel++) {
                $bytes .= pack('f', $channels[$channel][$frame]);
            }
        }

        return new self(FloatBuffer::fromBytes($bytes), $frames, $count);
    }

    /** @return list<list<float>> one list of samples a channel */
    public function toChannels(): array
    {
        $result = array_fill(0, $this->channels, []);
        foreach (array_values(unpack('f*', $this->bytes()) ?: []) as $index => $value) {
            $result[$index % $this->channels][] = is_float($value) ? $value : 0.0;
        }

        return array_values($result);
    }
}
