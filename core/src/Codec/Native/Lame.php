<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/** One MP3 encoder of the LAME library (lame.h). */
final class Lame
{
    /** lame.h: vbr_off, vbr_abr, vbr_mtrh; STEREO, JOINT_STEREO, MONO */
    private const CONSTANT = 0;

    private const AVERAGE = 3;

    private const VARIABLE = 4;

    private const STEREO = 0;

    private const JOINT_STEREO = 1;

    private const MONO = 3;

    /** 0 slowest to 9 fastest; 3 is the library's own choice for constant rates. */
    private const EFFORT = 3;

    private readonly \FFI $library;

    private readonly \FFI\CData $handle;

    private \FFI\CData $room;

    private int $roomBytes = 0;

    private readonly bool $ready;

    /** @throws LibraryMissing */
    public function __construct(int $rate, private readonly int $channels, RateControl $rateControl,
        EncoderSettings $settings = new EncoderSettings)
    {
        $this->library = Library::open('
            void *lame_init(void);
            int lame_set_in_samplerate(void *g, int v);
            int lame_set_out_samplerate(void *g, int v);
            int lame_set_num_channels(void *g, int v);
            int lame_set_mode(void *g, int v);
            int lame_set_quality(void *g, int v);
            int lame_set_brate(void *g, int v);
            int lame_set_error_protection(void *g, int v);
            int lame_set_VBR_mean_bitrate_kbps(void *g, int v);
            int lame_set_VBR(void *g, int v);
            int lame_set_VBR_q(void *g, int v);
            int lame_set_bWriteVbrTag(void *g, int v);
            void lame_set_write_id3tag_automatic(void *g, int v);
            int lame_set_scale(void *g, float v);
            float lame_get_scale(void *g);
            int lame_init_params(void *g);
            int lame_get_encoder_delay(void *g);
            int lame_get_encoder_padding(void *g);
            int lame_encode_buffer_interleaved_ieee_float(void *g, const float *pcm, int frames, unsigned char *out, int room);
            int lame_encode_buffer_ieee_float(void *g, const float *l, const float *r, int frames, unsigned char *out, int room);
            int lame_encode_flush(void *g, unsigned char *out, int room);
            const char *get_lame_short_version(void);
            int lame_close(void *g);
        ', ['libmp3lame.so.0'], 'libmp3lame0');
        // For some rates the library lowers the level on its own; asked first by how much, it is told to undo that.
        $trial = $this->prepare($rate, $rateControl, $settings, 1.0);
        $this->library->lame_init_params($trial);
        $lowered = (float) $this->library->lame_get_scale($trial);
        $this->library->lame_close($trial);
        $this->handle = $this->prepare($rate, $rateControl, $settings, $lowered > 0.0 ? 1.0 / $lowered : 1.0);
        $this->ready = $this->library->lame_init_params($this->handle) >= 0;
        $this->room = \FFI::new('unsigned char[1]');
    }

    private function prepare(int $rate, RateControl $rateControl, EncoderSettings $settings, float $scale): \FFI\CData
    {
        $l = $this->library;
        $handle = $l->lame_init();
        $l->lame_set_in_samplerate($handle, $rate);
        $l->lame_set_out_samplerate($handle, $rate);
        $l->lame_set_num_channels($handle, $this->channels);
        $l->lame_set_mode($handle, match (true) {
            $this->channels === 1 => self::MONO,
            $settings->stereo === StereoCoding::Separate => self::STEREO,
            default => self::JOINT_STEREO,
        });
        $l->lame_set_error_protection($handle, $settings->checksums === true ? 1 : 0);
        $l->lame_set_quality($handle, self::EFFORT);
        // The info header and the tags are written by the container's own writer.
        $l->lame_set_bWriteVbrTag($handle, 0);
        $l->lame_set_write_id3tag_automatic($handle, 0);
        if ($rateControl->quality === null && $rateControl->mode === RateMode::Average) {
            $l->lame_set_VBR($handle, self::AVERAGE);
            $l->lame_set_VBR_mean_bitrate_kbps($handle, $rateControl->kbps);
        } elseif ($rateControl->quality === null) {
            $l->lame_set_VBR($handle, self::CONSTANT);
            $l->lame_set_brate($handle, $rateControl->kbps);
        } else {
            $l->lame_set_VBR($handle, self::VARIABLE);
            $l->lame_set_VBR_q($handle, $rateControl->quality);
        }
        $l->lame_set_scale($handle, $scale);

        return $handle;
    }

    public function __destruct()
    {
        $this->library->lame_close($this->handle);
    }

    public function isReady(): bool
    {
        return $this->ready;
    }

    public function delay(): int
    {
        return (int) $this->library->lame_get_encoder_delay($this->handle);
    }

    /** Known after {@see self::flush()}. */
    public function padding(): int
    {
        return (int) $this->library->lame_get_encoder_padding($this->handle);
    }

    public function maker(): string
    {
        return 'LAME'.$this->library->get_lame_short_version();
    }

    /** @return string|int a run of frames, perhaps empty, perhaps ending within one; or a negative status */
    public function encode(Block $block): string|int
    {
        $this->makeRoom($block->frames);
        $samples = $block->buffer->at($block->first());

        return $this->taken($this->channels === 1
            ? $this->library->lame_encode_buffer_ieee_float($this->handle, $samples, $samples, $block->frames,
                $this->room, $this->roomBytes)
            : $this->library->lame_encode_buffer_interleaved_ieee_float($this->handle, $samples, $block->frames, $this->room,
                $this->roomBytes));
    }

    /** @return string|int the last frames, or a negative status */
    public function flush(): string|int
    {
        $this->makeRoom(4608);

        return $this->taken($this->library->lame_encode_flush($this->handle, $this->room, $this->roomBytes));
    }

    /** lame.h: 1.25 × frames + 7200 bytes are always enough. */
    private function makeRoom(int $frames): void
    {
        $needed = intdiv($frames * 5, 4) + 7200;
        if ($needed > $this->roomBytes) {
            $this->room = \FFI::new("unsigned char[$needed]");
            $this->roomBytes = $needed;
        }
    }

    private function taken(int $status): string|int
    {
        return $status < 0 ? $status : \FFI::string($this->room, $status);
    }
}
