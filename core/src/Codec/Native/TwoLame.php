<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/** One MPEG audio layer II encoder of the TwoLAME library (twolame.h). */
final class TwoLame
{
    /** twolame.h: TWOLAME_STEREO, TWOLAME_JOINT_STEREO, TWOLAME_MONO */
    private const STEREO = 0;

    private const JOINT_STEREO = 1;

    private const MONO = 3;

    private readonly \FFI $library;

    private readonly \FFI\CData $options;

    private readonly bool $ready;

    private ?\FFI\CData $out = null;

    private int $room = 0;

    /** @throws LibraryMissing */
    public function __construct(int $rate, int $channels, int $kbps, EncoderSettings $settings = new EncoderSettings)
    {
        $this->library = Library::open('
            void *twolame_init(void);
            void twolame_close(void **options);
            int twolame_set_num_channels(void *o, int n);
            int twolame_set_mode(void *o, int mode);
            int twolame_set_in_samplerate(void *o, int rate);
            int twolame_set_out_samplerate(void *o, int rate);
            int twolame_set_bitrate(void *o, int kbps);
            int twolame_set_error_protection(void *o, int is);
            int twolame_set_verbosity(void *o, int level);
            int twolame_init_params(void *o);
            int twolame_encode_buffer_float32_interleaved(void *o, const float *from, int frames, unsigned char *to, int room);
            int twolame_encode_flush(void *o, unsigned char *to, int room);
            const char *get_twolame_version(void);
        ', ['libtwolame.so.0'], 'libtwolame0');
        $this->options = $this->library->twolame_init();
        $this->library->twolame_set_verbosity($this->options, 0);
        $this->library->twolame_set_num_channels($this->options, $channels);
        $this->library->twolame_set_mode($this->options, match (true) {
            $channels === 1 => self::MONO,
            $settings->stereo === StereoCoding::Joint => self::JOINT_STEREO,
            default => self::STEREO,
        });
        $this->library->twolame_set_error_protection($this->options, $settings->checksums === true ? 1 : 0);
        $this->library->twolame_set_in_samplerate($this->options, $rate);
        $this->library->twolame_set_out_samplerate($this->options, $rate);
        $this->library->twolame_set_bitrate($this->options, $kbps);
        $this->ready = $this->library->twolame_init_params($this->options) === 0;
    }

    public function __destruct()
    {
        if (isset($this->options)) {
            $pointer = $this->library->new('void*[1]');
            $pointer[0] = $this->options;
            $this->library->twolame_close(\FFI::addr($pointer[0]));
        }
    }

    public function isReady(): bool
    {
        return $this->ready;
    }

    public function version(): string
    {
        return 'TwoLAME '.$this->library->get_twolame_version();
    }

    /** Bytes of frames that are finished; null where it failed. */
    public function encode(Block $block): ?string
    {
        $this->reserve(2 * 4 * $block->samples() + 16_384);

        return $this->taken((int) $this->library->twolame_encode_buffer_float32_interleaved($this->options,
            $block->buffer->at($block->first()), $block->frames, $this->out, $this->room));
    }

    public function flush(): ?string
    {
        $this->reserve(16_384);

        return $this->taken((int) $this->library->twolame_encode_flush($this->options, $this->out, $this->room));
    }

    private function taken(int $bytes): ?string
    {
        return $bytes < 0 || $this->out === null ? null
            : ($bytes === 0 ? '' : \FFI::string(\FFI::cast('char*', \FFI::addr($this->out[0])), $bytes));
    }

    private function reserve(int $bytes): void
    {
        if ($this->out === null || $bytes > $this->room) {
            $this->room = $bytes;
            $this->out = \FFI::new("unsigned char[$bytes]");
        }
    }
}
