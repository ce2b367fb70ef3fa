<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/** One MPEG audio decoder of the mpg123 library, fed with whole frames (mpg123.h). */
final class Mpg123
{
    /** mpg123.h: parameters ADD_FLAGS, REMOVE_FLAGS and FREEFORMAT_SIZE; flags; the float encoding; statuses. */
    private const ADD_FLAGS = 2;

    private const REMOVE_FLAGS = 13;

    private const FREE_FORMAT_SIZE = 19;

    private const QUIET = 0x20;

    private const GAPLESS = 0x40;

    private const FORCE_FLOAT = 0x400;

    private const SKIP_ID3V2 = 0x2000;

    private const IGNORE_INFOFRAME = 0x4000;

    private const AUTO_RESAMPLE = 0x8000;

    private const NO_READAHEAD = 0x400000;

    private const ERROR = -1;

    private const NEW_FORMAT = -11;

    private readonly \FFI $library;

    private readonly \FFI\CData $handle;

    private readonly \FFI\CData $done;

    private readonly \FFI\CData $doneAt;

    /** @throws LibraryMissing */
    public function __construct()
    {
        $this->library = Library::open('
            int mpg123_init(void);
            void *mpg123_new(const char *decoder, int *error);
            int mpg123_param(void *h, int type, long value, double fvalue);
            int mpg123_open_feed(void *h);
            int mpg123_decode(void *h, const char *in, size_t size, void *out, size_t room, size_t *done);
            int mpg123_getformat(void *h, long *rate, int *channels, int *encoding);
            const char *mpg123_strerror(void *h);
            void mpg123_delete(void *h);
        ', ['libmpg123.so.0'], 'libmpg123-0');
        $this->library->mpg123_init();
        $handle = $this->library->mpg123_new(null, null);
        if ($handle === null) {
            throw LibraryMissing::named('libmpg123.so.0', 'libmpg123-0');
        }
        $this->handle = $handle;
        $this->library->mpg123_param($this->handle, self::ADD_FLAGS,
            self::QUIET | self::FORCE_FLOAT | self::SKIP_ID3V2 | self::IGNORE_INFOFRAME | self::NO_READAHEAD, 0.0);
        $this->library->mpg123_param($this->handle, self::REMOVE_FLAGS, self::GAPLESS | self::AUTO_RESAMPLE, 0.0);
        $this->library->mpg123_open_feed($this->handle);
        $this->done = \FFI::new('size_t');
        $this->doneAt = \FFI::addr($this->done);
    }

    public function __destruct()
    {
        if (isset($this->handle)) {
            $this->library->mpg123_delete($this->handle);
        }
    }

    /** Before the first bytes: @param  int  $bytes  of a frame without padding, in a stream of free format */
    public function expectFreeFormat(int $bytes): void
    {
        // The library counts from behind the header.
        $this->library->mpg123_param($this->handle, self::FREE_FORMAT_SIZE, $bytes - 4, 0.0);
        $this->library->mpg123_open_feed($this->handle);
    }

    /**
     * Feeds bytes (or none, to take what is held) and decodes into $room from sample $offset on.
     *
     * @return int samples over all channels, or a negative number where the data is damaged
     */
    public function decode(string $data, FloatBuffer $room, int $offset): int
    {
        $status = $this->library->mpg123_decode($this->handle, $data === '' ? null : $data, strlen($data), $room->at($offset),
            ($room->capacity - $offset) * FloatBuffer::BYTES_PER_SAMPLE, $this->doneAt);
        if ($status === self::NEW_FORMAT) {
            $status = $this->library->mpg123_decode($this->handle, null, 0, $room->at($offset),
                ($room->capacity - $offset) * FloatBuffer::BYTES_PER_SAMPLE, $this->doneAt);
        }

        return $status === self::ERROR ? self::ERROR : intdiv((int) $this->done->cdata, FloatBuffer::BYTES_PER_SAMPLE);
    }

    public function channels(): int
    {
        $rate = \FFI::new('long');
        $channels = \FFI::new('int');
        $encoding = \FFI::new('int');
        $this->library->mpg123_getformat($this->handle, \FFI::addr($rate), \FFI::addr($channels), \FFI::addr($encoding));

        return (int) $channels->cdata;
    }

    public function complaint(): string
    {
        return (string) $this->library->mpg123_strerror($this->handle);
    }
}
