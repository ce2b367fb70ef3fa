/* The bare library calls of further conversions in a C loop. Usage: pairs wav-flac|wav-opus|wav-vorbis|flac-wav|mp3-wav IN OUT.
   IN is 16-bit stereo at 48 kHz without a header, or a file of the codec. */
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

#define FRAMES 960

/* FLAC/stream_encoder.h, FLAC/stream_decoder.h */
void *FLAC__stream_encoder_new(void);
int FLAC__stream_encoder_set_channels(void *, unsigned), FLAC__stream_encoder_set_bits_per_sample(void *, unsigned), FLAC__stream_encoder_set_sample_rate(void *, unsigned);
int FLAC__stream_encoder_set_compression_level(void *, unsigned), FLAC__stream_encoder_init_file(void *, const char *, void *, void *), FLAC__stream_encoder_process_interleaved(void *, const int32_t *, unsigned), FLAC__stream_encoder_finish(void *);
typedef struct { unsigned blocksize, rate, channels; int assignment; unsigned bits; } FlacFrame;
void *FLAC__stream_decoder_new(void);
int FLAC__stream_decoder_init_file(void *, const char *, int (*)(void *, const FlacFrame *, const int32_t *const *, void *), void *, void (*)(void *, int, void *), void *), FLAC__stream_decoder_process_until_end_of_stream(void *);
/* opus_multistream.h */
void *opus_multistream_surround_encoder_create(int, int, int, int *, int *, unsigned char *, int, int *);
int opus_multistream_encode_float(void *, const float *, int, unsigned char *, int), opus_multistream_encoder_ctl(void *, int, ...);
/* vorbis/vorbisenc.h */
typedef struct { int64_t fields[64]; } State;
typedef struct { unsigned char *packet; long bytes, b, e; int64_t granule, number; } OggPacket;
void vorbis_info_init(State *), vorbis_comment_init(State *);
int vorbis_encode_setup_managed(State *, long, long, long, long, long), vorbis_encode_ctl(State *, int, void *), vorbis_encode_setup_init(State *), vorbis_analysis_init(State *, State *), vorbis_block_init(State *, State *);
float **vorbis_analysis_buffer(State *, int);
int vorbis_analysis_wrote(State *, int), vorbis_analysis_blockout(State *, State *), vorbis_analysis(State *, OggPacket *), vorbis_bitrate_addblock(State *), vorbis_bitrate_flushpacket(State *, OggPacket *);
/* mpg123.h */
int mpg123_init(void), mpg123_param(void *, int, long, double), mpg123_open(void *, const char *), mpg123_read(void *, void *, size_t, size_t *);
void *mpg123_new(const char *, int *);

static FILE *out;

static int flac_frame(void *decoder, const FlacFrame *frame, const int32_t *const *samples, void *client)
{
    static int16_t both[2 * 65536];
    for (unsigned at = 0; at < frame->blocksize; at++) for (unsigned channel = 0; channel < 2; channel++) both[2 * at + channel] = (int16_t) samples[channel][at];
    fwrite(both, 4, frame->blocksize, out);
    return 0;
}

static void flac_error(void *decoder, int status, void *client) { }

int main(int argc, char **argv)
{
    static int16_t in[2 * 4096];
    static int32_t numbers[2 * 4096];
    static float sound[2 * 4096];
    static unsigned char coded[1 << 16];
    FILE *file = fopen(argv[2], "rb");
    size_t frames;
    if (argc < 4 || file == NULL) return 1;
    if (strcmp(argv[1], "wav-flac") == 0) {
        void *flac = FLAC__stream_encoder_new();
        FLAC__stream_encoder_set_channels(flac, 2);
        FLAC__stream_encoder_set_bits_per_sample(flac, 16);
        FLAC__stream_encoder_set_sample_rate(flac, 48000);
        FLAC__stream_encoder_set_compression_level(flac, 5);
        FLAC__stream_encoder_init_file(flac, argv[3], NULL, NULL);
        while ((frames = fread(in, 4, 4096, file)) > 0) {
            for (size_t at = 0; at < 2 * frames; at++) numbers[at] = in[at];
            FLAC__stream_encoder_process_interleaved(flac, numbers, (unsigned) frames);
        }
        FLAC__stream_encoder_finish(flac);
        return 0;
    }
    out = fopen(argv[3], "wb");
    if (out == NULL) return 1;
    if (strcmp(argv[1], "flac-wav") == 0) {
        void *flac = FLAC__stream_decoder_new();
        FLAC__stream_decoder_init_file(flac, argv[2], flac_frame, NULL, flac_error, NULL);
        FLAC__stream_decoder_process_until_end_of_stream(flac);
    } else if (strcmp(argv[1], "mp3-wav") == 0) {
        size_t bytes;
        mpg123_init();
        void *mp3 = mpg123_new(NULL, NULL);
        mpg123_param(mp3, 2, 0x20, 0.0);
        mpg123_open(mp3, argv[2]);
        int status;
        do {
            status = mpg123_read(mp3, sound, sizeof sound, &bytes);
            fwrite(sound, 1, bytes, out);
        } while (status == 0 || status == -11);
    } else if (strcmp(argv[1], "wav-opus") == 0) {
        int streams, coupled, error;
        unsigned char mapping[255];
        void *opus = opus_multistream_surround_encoder_create(48000, 2, 0, &streams, &coupled, mapping, 2049, &error);
        opus_multistream_encoder_ctl(opus, 4002, 128000);
        while ((frames = fread(in, 4, FRAMES, file)) == FRAMES) {
            for (int at = 0; at < 2 * FRAMES; at++) sound[at] = in[at] / 32768.0f;
            int bytes = opus_multistream_encode_float(opus, sound, FRAMES, coded, 4000);
            fwrite(coded, 1, bytes, out);
        }
    } else {
        static State info, comment, state, block;
        OggPacket packet;
        vorbis_info_init(&info);
        vorbis_comment_init(&comment);
        vorbis_encode_setup_managed(&info, 2, 48000, -1, 160000, -1);
        vorbis_encode_ctl(&info, 0x15, NULL);
        vorbis_encode_setup_init(&info);
        vorbis_analysis_init(&state, &info);
        vorbis_block_init(&state, &block);
        do {
            frames = fread(in, 4, 4096, file);
            float **buffer = vorbis_analysis_buffer(&state, 4096);
            for (size_t at = 0; at < frames; at++) for (int channel = 0; channel < 2; channel++) buffer[channel][at] = in[2 * at + channel] / 32768.0f;
            vorbis_analysis_wrote(&state, (int) frames);
            while (vorbis_analysis_blockout(&state, &block) == 1) {
                vorbis_analysis(&block, NULL);
                vorbis_bitrate_addblock(&block);
                while (vorbis_bitrate_flushpacket(&state, &packet)) fwrite(packet.packet, 1, packet.bytes, out);
            }
        } while (frames > 0);
    }
    fclose(out);
    return 0;
}
