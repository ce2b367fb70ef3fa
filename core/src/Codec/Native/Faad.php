<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/** One AAC decoder of the FAAD2 library (neaacdec.h). */
final class Faad
{
    /** FAAD_FMT_FLOAT */
    private const FLOAT = 4;

    private readonly \FFI $library;

    private ?\FFI\CData $handle;

    private readonly \FFI\CData $info;

    private \FFI\CData $target;

    private readonly \FFI\CData $infoAt;

    private readonly \FFI\CData $targetAt;

    /**
     * @param  string  $config  AudioSpecificConfig (ISO/IEC 14496-3, 1.6.2.1)
     * @param  bool  $plain  whether no band replication is to be expected, for which low rates would be doubled
     *
     * @throws LibraryMissing
     */
    public function __construct(string $config, bool $plain = false)
    {
        $this->library = Library::open('
            typedef struct { unsigned char defObjectType; unsigned long defSampleRate; unsigned char outputFormat; unsigned char downMatrix; unsigned char useOldADTSFormat; unsigned char dontUpSampleImplicitSBR; } NeAACDecConfiguration;
            typedef struct { unsigned long bytesconsumed; unsigned long samples; unsigned char channels; unsigned char error; unsigned long samplerate; unsigned char sbr; unsigned char object_type; unsigned char header_type; unsigned char num_front_channels; unsigned char num_side_channels; unsigned char num_back_channels; unsigned char num_lfe_channels; unsigned char channel_position[64]; unsigned char ps; } NeAACDecFrameInfo;
            void *NeAACDecOpen(void);
            NeAACDecConfiguration *NeAACDecGetCurrentConfiguration(void *h);
            unsigned char NeAACDecSetConfiguration(void *h, NeAACDecConfiguration *config);
            char NeAACDecInit2(void *h, const char *config, unsigned long size, unsigned long *rate, unsigned char *channels);
            void NeAACDecPostSeekReset(void *h, long frame);
            void *NeAACDecDecode2(void *h, NeAACDecFrameInfo *info, const char *data, unsigned long size, void **target,
                unsigned long target_size);
            const char *NeAACDecGetErrorMessage(unsigned char code);
            void NeAACDecClose(void *h);
        ', ['libfaad.so.2'], 'libfaad2');
        $this->info = $this->library->new('NeAACDecFrameInfo');
        $this->target = $this->library->new('void*[1]');
        $this->infoAt = \FFI::addr($this->info);
        $this->targetAt = \FFI::addr($this->target[0]);
        $this->handle = $this->library->NeAACDecOpen();
        $setting = $this->library->NeAACDecGetCurrentConfiguration($this->handle);
        $setting->outputFormat = self::FLOAT;
        $setting->downMatrix = 0;
        $setting->dontUpSampleImplicitSBR = $plain ? 1 : 0;
        $this->library->NeAACDecSetConfiguration($this->handle, $setting);
        $rate = \FFI::new('unsigned long');
        $channels = \FFI::new('unsigned char');
        if ($this->library->NeAACDecInit2($this->handle, $config, strlen($config), \FFI::addr($rate), \FFI::addr($channels)) !== "\0") {
            $this->close();

            return;
        }
        // Without this the library swallows the first frame's output.
        $this->library->NeAACDecPostSeekReset($this->handle, 1);
    }

    public function __destruct()
    {
        $this->close();
    }

    /** Whether the set-up bytes were understood. */
    public function isReady(): bool
    {
        return $this->handle !== null;
    }

    /**
     * Decodes one access unit into $room at sample $offset.
     *
     * @return string empty, or what is wrong in the library's words
     */
    public function decode(string $data, FloatBuffer $room, int $offset): string
    {
        if ($this->handle === null) {
            return 'set-up not understood';
        }
        $this->target[0] = \FFI::cast('void*', $room->at($offset));
        $this->library->NeAACDecDecode2($this->handle, $this->infoAt, $data, strlen($data), $this->targetAt,
            ($room->capacity - $offset) * FloatBuffer::BYTES_PER_SAMPLE);

        return $this->info->error === 0 ? '' : (string) $this->library->NeAACDecGetErrorMessage($this->info->error);
    }

    /** Samples over all channels that the last call gave. */
    public function samples(): int
    {
        return (int) $this->info->samples;
    }

    public function channels(): int
    {
        return (int) $this->info->channels;
    }

    public function rate(): int
    {
        return (int) $this->info->samplerate;
    }

    /** Whether the last frame carried spectral band replication (HE-AAC). */
    public function hasBandReplication(): bool
    {
        return $this->info->sbr === 1 || $this->info->sbr === 2;
    }

    /** Whether the last frame carried parametric stereo (HE-AAC v2). */
    public function hasParametricStereo(): bool
    {
        return $this->info->ps === 1;
    }

    /**
     * @return list<int> the library's position code of each channel: 1 centre, 2 left, 3 right, 4 and 5 sides, 6 and 7 backs,
     *         8 back centre, 9 low frequencies
     */
    public function positions(): array
    {
        $positions = [];
        for ($index = 0; $index < $this->channels(); $index++) {
            $positions[] = (int) $this->info->channel_position[$index];
        }

        return $positions;
    }

    private function close(): void
    {
        if ($this->handle !== null) {
            $this->library->NeAACDecClose($this->handle);
            $this->handle = null;
        }
    }
}
