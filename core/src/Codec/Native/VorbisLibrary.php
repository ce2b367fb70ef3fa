<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/** The prototypes of the Vorbis libraries (vorbis/codec.h, vorbis/vorbisenc.h, ogg/ogg.h). */
final class VorbisLibrary
{
    /** @throws LibraryMissing */
    public static function open(): \FFI
    {
        // The states are the library's own; their room here is larger than any of them.
        return Library::open('
            typedef struct { int64_t fields[64]; } STATE;
            typedef struct { char *packet; long bytes, b_o_s, e_o_s; int64_t granule, number; } PACKET;
            void vorbis_info_init(STATE *i);
            void vorbis_info_clear(STATE *i);
            void vorbis_comment_init(STATE *c);
            void vorbis_comment_clear(STATE *c);
            int vorbis_synthesis_headerin(STATE *i, STATE *c, PACKET *p);
            int vorbis_synthesis_init(STATE *v, STATE *i);
            int vorbis_block_init(STATE *v, STATE *b);
            int vorbis_block_clear(STATE *b);
            void vorbis_dsp_clear(STATE *v);
            int vorbis_synthesis(STATE *b, PACKET *p);
            int vorbis_synthesis_blockin(STATE *v, STATE *b);
            int vorbis_synthesis_pcmout(STATE *v, float ***pcm);
            int vorbis_synthesis_read(STATE *v, int samples);
            int vorbis_encode_setup_managed(STATE *i, long channels, long rate, long most, long nominal, long least);
            int vorbis_encode_setup_vbr(STATE *i, long channels, long rate, float quality);
            int vorbis_encode_ctl(STATE *i, int number, void *argument);
            int vorbis_encode_setup_init(STATE *i);
            int vorbis_analysis_init(STATE *v, STATE *i);
            int vorbis_analysis_headerout(STATE *v, STATE *c, PACKET *a, PACKET *b, PACKET *s);
            float **vorbis_analysis_buffer(STATE *v, int samples);
            int vorbis_analysis_wrote(STATE *v, int samples);
            int vorbis_analysis_blockout(STATE *v, STATE *b);
            int vorbis_analysis(STATE *b, PACKET *p);
            int vorbis_bitrate_addblock(STATE *b);
            int vorbis_bitrate_flushpacket(STATE *v, PACKET *p);
            const char *vorbis_version_string(void);
        ', ['libvorbisenc.so.2'], 'libvorbisenc2');
    }
}
