<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/** The prototypes of the FLAC library that are used (FLAC/stream_decoder.h, FLAC/stream_encoder.h, FLAC/format.h). */
final class FlacLibrary
{
    /** @throws LibraryMissing */
    public static function open(): \FFI
    {
        return Library::open('
            typedef struct { unsigned blocksize, rate, channels; int assignment; unsigned bits; } FRAME;
            typedef struct { int type, last; unsigned length, unused, min_block, max_block, min_frame, max_frame, rate, channels,
                bits; uint64_t total; unsigned char md5[16]; } STREAM_INFO;
            void *FLAC__stream_decoder_new(void);
            void FLAC__stream_decoder_delete(void *d);
            int FLAC__stream_decoder_init_stream(void *d,
                int (*read)(void *d, unsigned char *to, size_t *bytes, void *client), void *seek, void *tell, void *length, void *eof,
                int (*write)(void *d, const FRAME *frame, const int *const *samples, void *client), void *metadata,
                void (*error)(void *d, int status, void *client), void *client);
            int FLAC__stream_decoder_process_until_end_of_metadata(void *d);
            int FLAC__stream_decoder_process_single(void *d);
            int FLAC__stream_decoder_get_state(void *d);
            int FLAC__stream_decoder_flush(void *d);
            void *FLAC__stream_encoder_new(void);
            void FLAC__stream_encoder_delete(void *e);
            int FLAC__stream_encoder_set_channels(void *e, unsigned value);
            int FLAC__stream_encoder_set_bits_per_sample(void *e, unsigned value);
            int FLAC__stream_encoder_set_sample_rate(void *e, unsigned value);
            int FLAC__stream_encoder_set_compression_level(void *e, unsigned value);
            int FLAC__stream_encoder_set_blocksize(void *e, unsigned value);
            int FLAC__stream_encoder_set_streamable_subset(void *e, int value);
            int FLAC__stream_encoder_set_do_md5(void *e, int value);
            int FLAC__stream_encoder_init_stream(void *e,
                int (*write)(void *e, const unsigned char *bytes, size_t count, unsigned samples, unsigned frame, void *client),
                    void *seek, void *tell,
                void (*metadata)(void *e, const STREAM_INFO *info, void *client), void *client);
            int FLAC__stream_encoder_process_interleaved(void *e, const void *samples, unsigned frames);
            int FLAC__stream_encoder_finish(void *e);
        ', ['libFLAC.so.12'], 'libflac12');
    }
}
