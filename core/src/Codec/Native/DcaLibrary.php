<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Interleaving;
use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/** One decoder of DTS core frames of the dca library (libdca, dca.h), without dynamic range compression and without folding channels. */
final class DcaLibrary
{
    /** dca.h: DCA_CHANNEL_MASK and DCA_LFE. */
    private const CHANNEL_MASK = 0x3F;

    private const LFE = 0x80;

    private const BLOCK = 256;

    /** The largest frame (ETSI TS 102 114, 5.3.1, FSIZE), and what the library may read beyond. */
    private const ROOM = 16_384 + 64;

    /** Channels of the arrangements that the library decodes: ETSI TS 102 114, table 5-4. */
    private const CHANNELS = [1, 2, 2, 2, 2, 3, 3, 4, 4, 5];

    private readonly \FFI $library;

    private readonly \FFI\CData $state;

    private readonly \FFI\CData $numbers;

    private readonly \FFI\CData $level;

    private readonly \FFI\CData $bytes;

    /** @throws LibraryMissing */
    public function __construct()
    {
        $this->library = Library::open('
            void *dca_init(uint32_t acceleration);
            int dca_syncinfo(void *state, uint8_t *bytes, int *flags, int *rate, int *bits, int *samples);
            int dca_frame(void *state, uint8_t *bytes, int *flags, float *level, float bias);
            void dca_dynrng(void *state, float (*call)(float, void *), void *data);
            int dca_blocks_num(void *state);
            int dca_block(void *state);
            float *dca_samples(void *state);
            void dca_free(void *state);
        ', ['libdca.so.0'], 'libdca0');
        $this->state = $this->library->dca_init(0);
        $this->numbers = \FFI::new('int[4]');
        $this->level = \FFI::new('float');
        $this->bytes = \FFI::new('uint8_t['.self::ROOM.']');
    }

    public function __destruct()
    {
        if (isset($this->state)) {
            $this->library->dca_free($this->state);
        }
    }

    /**
     * Decodes one frame into $room, interleaved in the order in which the frame codes its channels, low frequencies last.
     *
     * @param  int  $channels  that the frame is to have
     * @return int samples of each channel, 0 where it is damaged
     *
     * @throws LibraryMissing
     */
    public function decode(string $frame, int $channels, FloatBuffer $room, int $offset): int
    {
        $length = min(self::ROOM - 64, strlen($frame));
        \FFI::memset($this->bytes, 0, self::ROOM);
        \FFI::memcpy($this->bytes, $frame, $length);
        $bytes = \FFI::cast('uint8_t*', \FFI::addr($this->bytes[0]));
        $at = fn (int $index): \FFI\CData => \FFI::addr($this->numbers[$index]);
        $size = (int) $this->library->dca_syncinfo($this->state, $bytes, $at(0), $at(1), $at(2), $at(3));
        $low = ((int) $this->numbers[0] & self::LFE) !== 0;
        $main = self::CHANNELS[(int) $this->numbers[0] & self::CHANNEL_MASK] ?? 0;
        if ($size === 0 || $size > $length || $main + ($low ? 1 : 0) !== $channels) {
            return 0;
        }
        $this->level->cdata = 1.0;
        if ($this->library->dca_frame($this->state, $bytes, $at(0), \FFI::addr($this->level), 0.0) !== 0) {
            return 0;
        }
        $this->library->dca_dynrng($this->state, null, null);
        $blocks = (int) $this->library->dca_blocks_num($this->state);
        if ($offset + $blocks * self::BLOCK * $channels > $room->capacity) {
            return 0;
        }
        for ($block = 0; $block < $blocks; $block++) {
            if ($this->library->dca_block($this->state) !== 0) {
                return 0;
            }
            $samples = $this->library->dca_samples($this->state);
            Interleaving::get()
                ->join(array_map(fn (int $channel): \FFI\CData => $samples + self::BLOCK * $channel, range(0, $channels - 1)),
                    $room, $offset + $block * self::BLOCK * $channels, self::BLOCK);
        }

        return $blocks * self::BLOCK;
    }
}
