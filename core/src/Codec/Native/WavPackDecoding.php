<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\SampleConversion;

/** One WavPack decoder of the WavPack library, fed with the blocks of one stretch after another. */
final class WavPackDecoding
{
    /** OPEN_NORMALIZE, OPEN_STREAMING */
    private const NORMALIZE = 0x10;

    private const STREAMING = 0x20;

    private readonly \FFI $library;

    private readonly \FFI\CData $reader;

    private ?\FFI\CData $context = null;

    private string $input = '';

    private int $at = 0;

    private ?\FFI\CData $numbers = null;

    private int $room = 0;

    private int $errors = 0;

    /**
     * @param  int  $bits  of one sample, whole bytes
     *
     * @throws LibraryMissing
     */
    public function __construct(private readonly int $channels, private readonly int $bits, private readonly bool $float)
    {
        $this->library = WavPackLibrary::open();
        $this->reader = $this->library->new('READER');
        $this->reader->read_bytes = function (?\FFI\CData $id, \FFI\CData $to, int $count): int {
            $count = min($count, strlen($this->input) - $this->at);
            if ($count > 0) {
                \FFI::memcpy($to, substr($this->input, $this->at, $count), $count);
                $this->at += $count;
            }

            return $count;
        };
        $this->reader->get_pos = fn (?\FFI\CData $id): int => $this->at;
        $this->reader->set_pos_abs = fn (?\FFI\CData $id, int $place): int => -1;
        $this->reader->set_pos_rel = fn (?\FFI\CData $id, int $delta, int $mode): int => -1;
        $this->reader->push_back_byte = function (?\FFI\CData $id, int $byte): int {
            $this->at = max(0, $this->at - 1);

            return $byte;
        };
        $this->reader->get_length = fn (?\FFI\CData $id): int => 0;
        $this->reader->can_seek = fn (?\FFI\CData $id): int => 0;
    }

    public function __destruct()
    {
        if ($this->context !== null) {
            $this->library->WavpackCloseFile($this->context);
        }
    }

    /**
     * Decodes the blocks of one stretch of $frames samples into $room; gives how many there were, 0 where they are damaged.
     *
     * @throws LibraryMissing
     */
    public function decode(string $blocks, int $frames, FloatBuffer $room): int
    {
        $this->input = $this->context === null ? $blocks : substr($this->input, $this->at).$blocks;
        $this->at = 0;
        if ($this->context === null) {
            $error = \FFI::new('char[128]');
            $this->context = $this->library->WavpackOpenFileInputEx(\FFI::addr($this->reader),
                \FFI::cast('void*', \FFI::addr($this->reader)), null, \FFI::cast('char*', \FFI::addr($error)),
                self::STREAMING | ($this->float ? self::NORMALIZE : 0), 0);
            if ($this->context === null) {
                return 0;
            }
        }
        $samples = $frames * $this->channels;
        if ($this->numbers === null || $samples > $this->room) {
            $this->room = $samples;
            $this->numbers = \FFI::new("int32_t[$samples]");
        }
        $numbers = \FFI::cast('int32_t*', \FFI::addr($this->numbers));
        $given = (int) $this->library->WavpackUnpackSamples($this->context, $numbers, $frames);
        // Sums of blocks that are not right: the library gives silence for them, and as many samples.
        $errors = (int) $this->library->WavpackGetNumErrors($this->context);
        if ($errors > $this->errors) {
            $this->errors = $errors;

            return 0;
        }
        if ($this->float) {
            $room->put(0, \FFI::string(\FFI::cast('char*', $numbers), 4 * $given * $this->channels));
        } else {
            SampleConversion::get()->fromNumbers($numbers, $this->bits, $room, 0, $given * $this->channels);
        }

        return $given;
    }
}
