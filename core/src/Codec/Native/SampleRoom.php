<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\SampleConversion;

/** Float samples → 16- or 32-bit whole numbers in native memory that is used again and again. */
final class SampleRoom
{
    private \FFI\CData $room;

    private int $bytes = 0;

    public function __construct()
    {
        $this->room = \FFI::new('char[1]');
    }

    /** @throws LibraryMissing */
    public function to16(FloatBuffer $from, int $offset, int $count): \FFI\CData
    {
        $this->reserve(2 * $count);
        SampleConversion::get()->to16($from, $offset, $count, $this->room);

        return $this->room;
    }

    /** @throws LibraryMissing */
    public function to32(FloatBuffer $from, int $offset, int $count): \FFI\CData
    {
        $this->reserve(4 * $count);
        SampleConversion::get()->to32($from, $offset, $count, $this->room);

        return $this->room;
    }

    /**
     * As 32-bit numbers whose lower bits hold the sample, as lossless encoders take them; see {@see SampleConversion::toNumbers()}.
     *
     * @param  int  $bits  4 to 24
     *
     * @throws LibraryMissing
     */
    public function toNumbers(FloatBuffer $from, int $offset, int $count, int $bits): \FFI\CData
    {
        $this->reserve(4 * $count);
        SampleConversion::get()->toNumbers($from, $offset, $count, $bits, $this->room);

        return $this->room;
    }

    /** The first $bytes bytes of what was converted last. */
    public function bytes(int $bytes): string
    {
        return \FFI::string($this->room, $bytes);
    }

    private function reserve(int $bytes): void
    {
        if ($bytes > $this->bytes) {
            $this->room = \FFI::new("char[$bytes]");
            $this->bytes = $bytes;
        }
    }
}
