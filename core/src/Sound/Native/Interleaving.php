<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

/** Channels that stand one after the other ↔ frames of one sample a channel. */
final class Interleaving
{
    private static ?self $one = null;

    private function __construct(private readonly \FFI $kernels, private readonly VectorMath $math) {}

    /** @throws LibraryMissing */
    public static function get(): self
    {
        return self::$one ??= new self(Kernels::open(), VectorMath::get());
    }

    /**
     * Puts channels together.
     *
     * @param  list<\FFI\CData>  $channels  pointers to $frames float32 samples each
     * @param  int  $offset  in samples, of the first frame
     */
    public function join(array $channels, FloatBuffer $to, int $offset, int $frames): void
    {
        if (count($channels) === 2) {
            ($this->kernels->volk_32f_x2_interleave_32fc)($to->at($offset), $channels[0], $channels[1], $frames);

            return;
        }
        foreach ($channels as $index => $channel) {
            $this->math->copy($channel, 1, $to->at($offset + $index), count($channels), $frames);
        }
    }

    /**
     * Sets channels apart.
     *
     * @param  int  $offset  in samples, of the first frame
     * @param  list<\FFI\CData>  $channels  pointers to room for $frames float32 samples each
     */
    public function part(FloatBuffer $from, int $offset, array $channels, int $frames): void
    {
        if (count($channels) === 2) {
            ($this->kernels->volk_32fc_deinterleave_32f_x2)($channels[0], $channels[1], $from->at($offset), $frames);

            return;
        }
        foreach ($channels as $index => $channel) {
            $this->math->copy($from->at($offset + $index), count($channels), $channel, 1, $frames);
        }
    }

    /**
     * The same, into buffers.
     *
     * @param  list<FloatBuffer>  $channels
     * @param  int  $at  the sample of each from which on they are filled
     */
    public function partInto(FloatBuffer $from, int $offset, array $channels, int $at, int $frames): void
    {
        $this->part($from, $offset, array_map(fn (FloatBuffer $channel): \FFI\CData => $channel->at($at), $channels), $frames);
    }
}
