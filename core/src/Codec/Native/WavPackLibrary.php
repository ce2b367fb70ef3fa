<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/** The prototypes of the WavPack library that are used (wavpack.h). */
final class WavPackLibrary
{
    /** @throws LibraryMissing */
    public static function open(): \FFI
    {
        return Library::open('
            typedef struct {
                int32_t (*read_bytes)(void *id, void *to, int32_t count);
                uint32_t (*get_pos)(void *id);
                int (*set_pos_abs)(void *id, uint32_t place);
                int (*set_pos_rel)(void *id, int32_t delta, int mode);
                int (*push_back_byte)(void *id, int byte);
                uint32_t (*get_length)(void *id);
                int (*can_seek)(void *id);
                void *write_bytes;
            } READER;
            typedef struct {
                float bitrate, shaping_weight;
                int bits_per_sample, bytes_per_sample;
                int qmode, flags, xmode, num_channels, float_norm_exp;
                int32_t block_samples, worker_threads, sample_rate, channel_mask;
                unsigned char md5_checksum[16], md5_read;
                int num_tag_strings;
                char **tag_strings;
                int64_t more[16];
            } CONFIG;
            void *WavpackOpenFileInputEx(READER *reader, void *id, void *correction, char *error, int flags, int offset);
            uint32_t WavpackUnpackSamples(void *c, int32_t *to, uint32_t samples);
            int WavpackGetNumErrors(void *context);
            void *WavpackCloseFile(void *c);
            void *WavpackOpenFileOutput(int (*write)(void *id, void *data, int32_t count), void *id, void *correction);
            int WavpackSetConfiguration64(void *c, CONFIG *config, int64_t total, const char *channels);
            int WavpackPackInit(void *c);
            int WavpackPackSamples(void *c, void *from, uint32_t samples);
            int WavpackFlushSamples(void *c);
            const char *WavpackGetLibraryVersionString(void);
        ', ['libwavpack.so.1'], 'libwavpack1');
    }
}
