/* The bare library calls that a conversion cannot do without, in a C loop: AAC packets in, WAV or MP3 bytes out.
   Usage: baseline PACKETS wav|mp3 OUT. PACKETS: length of the set-up (4 bytes, least significant first), set-up, then for each packet its length and bytes. */
#include <math.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

typedef struct { unsigned char defObjectType; unsigned long defSampleRate; unsigned char outputFormat, downMatrix, useOldADTSFormat, dontUpSampleImplicitSBR; } Config;
typedef struct { unsigned long bytesconsumed, samples; unsigned char channels, error; unsigned long samplerate; unsigned char sbr, object_type, header_type, front, side, back, lfe, position[64], ps; } Info;
void *NeAACDecOpen(void);
Config *NeAACDecGetCurrentConfiguration(void *);
unsigned char NeAACDecSetConfiguration(void *, Config *);
char NeAACDecInit2(void *, unsigned char *, unsigned long, unsigned long *, unsigned char *);
void *NeAACDecDecode2(void *, Info *, unsigned char *, unsigned long, void **, unsigned long);
void *lame_init(void);
int lame_set_in_samplerate(void *, int), lame_set_out_samplerate(void *, int), lame_set_num_channels(void *, int), lame_set_mode(void *, int), lame_set_quality(void *, int), lame_set_brate(void *, int), lame_set_VBR(void *, int), lame_set_bWriteVbrTag(void *, int), lame_init_params(void *);
int lame_encode_buffer_interleaved_ieee_float(void *, const float *, int, unsigned char *, int), lame_encode_flush(void *, unsigned char *, int);
void src_float_to_short_array(const float *, short *, int);

int main(int argc, char **argv)
{
    FILE *in = fopen(argv[1], "rb"), *out = fopen(argv[3], "wb");
    int mp3 = strcmp(argv[2], "mp3") == 0;
    static unsigned char packet[1 << 16], coded[1 << 17];
    static float sound[16384 * 2];
    static short whole[16384 * 2];
    uint32_t length;
    unsigned long rate;
    unsigned char channels;
    void *aac = NeAACDecOpen(), *lame = NULL, *target;
    Info info;
    if (argc < 4 || in == NULL || out == NULL || fread(&length, 4, 1, in) != 1 || fread(packet, 1, length, in) != length) return 1;
    Config *config = NeAACDecGetCurrentConfiguration(aac);
    config->outputFormat = 4;
    NeAACDecSetConfiguration(aac, config);
    NeAACDecInit2(aac, packet, length, &rate, &channels);
    if (mp3) {
        lame = lame_init();
        lame_set_in_samplerate(lame, (int) rate);
        lame_set_out_samplerate(lame, (int) rate);
        lame_set_num_channels(lame, channels);
        lame_set_mode(lame, 1);
        lame_set_quality(lame, 3);
        lame_set_VBR(lame, 0);
        lame_set_brate(lame, 192);
        lame_set_bWriteVbrTag(lame, 0);
        lame_init_params(lame);
    }
    while (fread(&length, 4, 1, in) == 1 && fread(packet, 1, length, in) == length) {
        target = sound;
        NeAACDecDecode2(aac, &info, packet, length, &target, sizeof sound);
        if (info.samples == 0) continue;
        if (mp3) {
            int bytes = lame_encode_buffer_interleaved_ieee_float(lame, sound, (int) (info.samples / channels), coded, sizeof coded);
            fwrite(coded, 1, bytes, out);
        } else {
            src_float_to_short_array(sound, whole, (int) info.samples);
            fwrite(whole, 2, info.samples, out);
        }
    }
    if (mp3) fwrite(coded, 1, lame_encode_flush(lame, coded, sizeof coded), out);
    fclose(out);
    return 0;
}
