<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

/** Whole numbers ↔ float32, full scale ±1.0, rounded to nearest and limited at full scale. */
final class SampleForms
{
    private static ?self $one = null;

    private function __construct(private readonly \FFI $library)
    {
    }

    /** @throws LibraryMissing */
    public static function get(): self
    {
        return self::$one ??= new self(Library::open('
            void src_short_to_float_array(const char *in, float *out, int len);
            void src_float_to_short_array(const float *in, void *out, int len);
            void src_int_to_float_array(const char *in, float *out, int len);
            void src_float_to_int_array(const float *in, void *out, int len);
        ', ['libsamplerate.so.0'], 'libsamplerate0'));
    }

    /** @param  string  $bytes 16-bit samples in the byte order of this machine */
    public function from16(string $bytes, FloatBuffer $to, int $offset): void
    {
        $this->library->src_short_to_float_array($bytes, $to->at($offset), intdiv(strlen($bytes), 2));
    }

    /** @param  string  $bytes 32-bit samples in the byte order of this machine */
    public function from32(string $bytes, FloatBuffer $to, int $offset): void
    {
        $this->library->src_int_to_float_array($bytes, $to->at($offset), intdiv(strlen($bytes), 4));
    }

    /** @param  \FFI\CData  $numbers pointer to 16-bit samples of this machine */
    public function fromShorts(\FFI\CData $numbers, FloatBuffer $to, int $offset, int $count): void
    {
        $this->library->src_short_to_float_array(\FFI::cast('char*', $numbers), $to->at($offset), $count);
    }

    /** @param  \FFI\CData  $numbers pointer to 32-bit samples of this machine */
    public function fromNumbers(\FFI\CData $numbers, FloatBuffer $to, int $offset, int $count): void
    {
        $this->library->src_int_to_float_array(\FFI::cast('char*', $numbers), $to->at($offset), $count);
    }

    /** Into $room, which must hold 2 × $count bytes. */
    public function to16(FloatBuffer $from, int $offset, int $count, \FFI\CData $room): void
    {
        $this->library->src_float_to_short_array($from->at($offset), $room, $count);
    }

    /** As 16-bit samples in the byte order of this machine. */
    public function bytes16(FloatBuffer $from, int $offset, int $count): string
    {
        if ($count === 0) {
            return '';
        }
        $room = \FFI::new('char['. 2 * $count.']');
        $this->to16($from, $offset, $count, $room);

        return \FFI::string($room, 2 * $count);
    }

    /** Into $room, which must hold 4 × $count bytes. */
    public function to32(FloatBuffer $from, int $offset, int $count, \FFI\CData $room): void
    {
        $this->library->src_float_to_int_array($from->at($offset), $room, $count);
    }
}
