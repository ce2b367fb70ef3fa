<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Interleaving;
use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/** One AC-3 decoder of the a52 library (a52dec/a52.h), without dynamic range compression. */
final class A52Library
{
    private const CHANNEL_MASK = 15;

    private const LFE = 16;

    private const BLOCKS = 6;

    private const BLOCK = 256;

    private readonly \FFI $library;

    private readonly \FFI\CData $state;

    private readonly \FFI\CData $numbers;

    private readonly \FFI\CData $level;

    private ?\FFI\CData $bytes = null;

    /** @throws LibraryMissing */
    public function __construct()
    {
        $this->library = Library::open('
            void *a52_init(uint32_t acceleration);
            float *a52_samples(void *state);
            int a52_syncinfo(char *bytes, int *flags, int *rate, int *bits);
            int a52_frame(void *state, char *bytes, int *flags, float *level, float bias);
            void a52_dynrng(void *state, float (*call)(float, void *), void *data);
            int a52_block(void *state);
            void a52_free(void *state);
        ', ['liba52-0.7.4.so'], 'liba52-0.7.4');
        $this->state = $this->library->a52_init(0);
        $this->numbers = \FFI::new('int[3]');
        $this->level = \FFI::new('float');
    }

    public function __destruct()
    {
        if (isset($this->level)) {
            $this->library->a52_free($this->state);
        }
    }

    /**
     * Decodes one frame of 1,536 samples into $room, interleaved in the order in which the frame codes them, low frequencies last.
     *
     * @return int channels, 0 where it is damaged
     *
     * @throws LibraryMissing
     */
    public function decode(string $frame, FloatBuffer $room, int $offset): int
    {
        $this->bytes ??= \FFI::new('char[4096]');
        \FFI::memcpy($this->bytes, $frame, min(4096, strlen($frame)));
        $bytes = \FFI::cast('char*', \FFI::addr($this->bytes[0]));
        $at = fn (int $index): \FFI\CData => \FFI::addr($this->numbers[$index]);
        $length = (int) $this->library->a52_syncinfo($bytes, $at(0), $at(1), $at(2));
        if ($length === 0 || $length > strlen($frame) || $length > 4096) {
            return 0;
        }
        $this->level->cdata = 1.0;
        if ($this->library->a52_frame($this->state, $bytes, $at(0), \FFI::addr($this->level), 0.0) !== 0) {
            return 0;
        }
        $this->library->a52_dynrng($this->state, null, null);
        $low = ((int) $this->numbers[0] & self::LFE) !== 0;
        // Dual mono, mono, stereo, 3/0, 2/1, 3/1, 2/2, 3/2 and what else the library can give
        $main = [2, 1, 2, 3, 3, 4, 4, 5, 1, 1, 2][(int) $this->numbers[0] & self::CHANNEL_MASK] ?? 0;
        $channels = $main + ($low ? 1 : 0);
        if ($main === 0 || $offset + self::BLOCKS * self::BLOCK * $channels > $room->capacity) {
            return 0;
        }
        for ($block = 0; $block < self::BLOCKS; $block++) {
            if ($this->library->a52_block($this->state) !== 0) {
                return 0;
            }
            $samples = $this->library->a52_samples($this->state);
            // The library gives low frequencies first.
            $places = array_map(fn (int $channel): \FFI\CData => $samples + self::BLOCK * ($low ? ($channel === $main ? 0 : $channel + 1)
                : $channel), range(0, $channels - 1));
            Interleaving::get()->join($places, $room, $offset + $block * self::BLOCK * $channels, self::BLOCK);
        }

        return $channels;
    }
}
