<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/**
 * Headerless samples of any bit depth and byte order through the sndfile library (sndfile.h),
 * reading from and writing to memory by its virtual input and output.
 */
final class SampleFile
{
    /** SF_FORMAT_RAW, SF_FORMAT_WAV, SF_FORMAT_CAF */
    private const RAW = 0x040000;

    private const WAVE = 0x010000;

    private const CORE_AUDIO = 0x180000;

    private const CONTAINER = 0x0FFF0000;

    private const READ = 0x10;

    private const WRITE = 0x20;

    /** A length no file reaches, so that reading never meets an end. */
    private const ENDLESS = 1 << 50;

    private readonly \FFI $library;

    private readonly \FFI\CData $calls;

    private readonly \FFI\CData $file;

    private string $input = '';

    /** Place of the first byte of the input in what the library takes for a file. */
    private int $inputBase = 0;

    private string $output = '';

    /** Bytes at the start of what is written that are a header and not wanted; null until it is known. */
    private ?int $headBytes = 0;

    private int $place = 0;

    private bool $closed = false;

    /** Whether what is written is one file, in which the library goes back and forth. */
    private readonly bool $whole;

    /**
     * @param  int  $format  a container (SF_FORMAT_RAW, …), a sub-type (SF_FORMAT_PCM_24, …) and a byte order (SF_ENDIAN_…)
     *          joined; 0 where the header tells
     * @param  string  $head  bytes with which a file that has a header begins
     *
     * @throws LibraryMissing
     */
    private function __construct(int $mode, int $format, int $channels, int $rate = 48000, string $head = '')
    {
        $this->input = $head;
        $this->whole = $mode === self::WRITE && ($format & self::CONTAINER) === self::CORE_AUDIO;
        $this->headBytes = $mode === self::WRITE && ($format & self::CONTAINER) === self::WAVE ? null : 0;
        $this->library = Library::open('
            typedef struct { int64_t frames; int samplerate; int channels; int format; int sections; int seekable; } SF_INFO;
            typedef struct {
                int64_t (*get_filelen)(void *user);
                int64_t (*seek)(int64_t offset, int whence, void *user);
                int64_t (*read)(void *to, int64_t count, void *user);
                int64_t (*write)(const void *from, int64_t count, void *user);
                int64_t (*tell)(void *user);
            } SF_VIRTUAL_IO;
            void *sf_open_virtual(SF_VIRTUAL_IO *io, int mode, SF_INFO *info, void *user);
            int64_t sf_read_float(void *f, float *to, int64_t items);
            int64_t sf_read_int(void *f, int *to, int64_t items);
            int64_t sf_write_float(void *f, const float *from, int64_t items);
            int64_t sf_write_int(void *f, const int *from, int64_t items);
            int64_t sf_write_short(void *f, const short *from, int64_t items);
            int sf_close(void *f);
        ', ['libsndfile.so.1'], 'libsndfile1');
        $this->calls = $this->library->new('SF_VIRTUAL_IO');
        $this->calls->get_filelen = fn (?\FFI\CData $user): int => $mode === self::READ ? self::ENDLESS
            : ($this->whole ? strlen($this->output) : $this->place);
        $this->calls->seek = fn (int $offset, int $whence, ?\FFI\CData $user): int => $this->place = match (true) {
            $whence === SEEK_SET => $offset,
            $whence === SEEK_CUR => $this->place + $offset,
            default => $this->whole ? strlen($this->output) + $offset : $this->place,
        };
        $this->calls->tell = fn (?\FFI\CData $user): int => $this->place;
        $this->calls->read = function (\FFI\CData $to, int $count, ?\FFI\CData $user): int {
            $within = $this->place - $this->inputBase;
            $count = $within < 0 ? 0 : max(0, min($count, strlen($this->input) - $within));
            if ($count > 0) {
                \FFI::memcpy($to, $within === 0 && $count === strlen($this->input) ? $this->input
                    : substr($this->input, $within, $count), $count);
                $this->place += $count;
            }

            return $count;
        };
        $this->calls->write = function (\FFI\CData $from, int $count, ?\FFI\CData $user): int {
            $this->take(\FFI::string(\FFI::cast('char*', $from), $count));
            $this->place += $count;

            return $count;
        };
        $info = $this->library->new('SF_INFO');
        $info->samplerate = $rate;
        $info->channels = $channels;
        $info->format = $format;
        $file = $this->library->sf_open_virtual(\FFI::addr($this->calls), $mode, \FFI::addr($info), null);
        if ($file === null) {
            throw LibraryMissing::named('libsndfile.so.1', 'libsndfile1');
        }
        $this->file = $file;
    }

    public function __destruct()
    {
        $this->close();
    }

    /** @throws LibraryMissing */
    public static function reader(int $format, int $channels): self
    {
        return new self(self::READ, self::RAW | $format, $channels);
    }

    /** @throws LibraryMissing */
    public static function writer(int $format, int $channels): self
    {
        return new self(self::WRITE, self::RAW | $format, $channels);
    }

    /**
     * For samples that only a file with a header can hold.
     *
     * @param  string  $head  the header and the first bytes after it
     *
     * @throws LibraryMissing
     */
    public static function headed(string $head, int $channels): self
    {
        return new self(self::READ, 0, $channels, 0, $head);
    }

    /**
     * Writes blocks of a WAV file; the header is taken away and can be asked for.
     *
     * @throws LibraryMissing
     */
    public static function waveWriter(int $format, int $channels, int $rate): self
    {
        return new self(self::WRITE, self::WAVE | $format, $channels, $rate);
    }

    /**
     * Writes a whole CAF file; it is given at the end.
     *
     * @throws LibraryMissing
     */
    public static function coreAudioWriter(int $format, int $channels, int $rate): self
    {
        return new self(self::WRITE, self::CORE_AUDIO | $format, $channels, $rate);
    }

    /** Takes what is still held by the library, and ends it. */
    public function finish(): string
    {
        $this->close();

        return $this->written();
    }

    private function close(): void
    {
        if (isset($this->file) && ! $this->closed) {
            $this->closed = true;
            $this->library->sf_close($this->file);
        }
    }

    /** Decodes $samples samples from $bytes into $room at sample $offset. */
    public function readFloats(string $bytes, int $samples, FloatBuffer $room, int $offset): void
    {
        $this->feed($bytes);
        $this->library->sf_read_float($this->file, $room->at($offset), $samples);
    }

    /** Decodes to 32-bit whole numbers, exact for every bit depth. */
    public function readNumbers(string $bytes, int $samples): \FFI\CData
    {
        $this->feed($bytes);
        $room = \FFI::new('int['.max(1, $samples).']');
        $this->library->sf_read_int($this->file, $room, $samples);

        return $room;
    }

    public function writeFloats(FloatBuffer $from, int $offset, int $samples): string
    {
        $this->library->sf_write_float($this->file, $from->at($offset), $samples);

        return $this->written();
    }

    /** @param  \FFI\CData  $numbers 32-bit whole numbers; the upper bits are written */
    public function write32(\FFI\CData $numbers, int $samples): string
    {
        $this->library->sf_write_int($this->file, \FFI::cast('int*', \FFI::addr($numbers)), $samples);

        return $this->written();
    }

    /** @param  \FFI\CData  $numbers 16-bit whole numbers */
    public function write16(\FFI\CData $numbers, int $samples): string
    {
        $this->library->sf_write_short($this->file, \FFI::cast('short*', \FFI::addr($numbers)), $samples);

        return $this->written();
    }

    /** Decodes $samples samples of what was given at the start into $room at sample $offset; gives how many there were. */
    public function readGiven(int $samples, FloatBuffer $room, int $offset): int
    {
        return (int) $this->library->sf_read_float($this->file, $room->at($offset), $samples);
    }

    private function feed(string $bytes): void
    {
        $this->input = $bytes;
        $this->inputBase = $this->place;
    }

    /** What is written after the header; a header that is written again at the end is left out. */
    private function take(string $bytes): void
    {
        if ($this->whole && $this->place < strlen($this->output)) {
            $this->output = substr_replace($this->output, $bytes, $this->place, strlen($bytes));
        } elseif ($this->headBytes === null) {
            $this->output .= $bytes;
            $data = strpos($this->output, 'data');
            if ($data !== false && strlen($this->output) >= $data + 8) {
                $this->headBytes = $data + 8;
                $this->output = substr($this->output, $this->headBytes);
            }
        } elseif ($this->place >= $this->headBytes) {
            $this->output .= $bytes;
        }
    }

    private function written(): string
    {
        if ($this->headBytes === null || $this->whole && ! $this->closed) {
            return '';
        }
        $bytes = $this->output;
        $this->output = '';

        return $bytes;
    }
}
