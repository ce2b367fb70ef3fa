<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\SampleConversion;

/** One Speex decoder of the Speex library (speex/speex.h, speex/speex_stereo.h). */
final class SpeexLibrary
{
    /** SPEEX_SET_ENH */
    private const ENHANCE = 0;

    private readonly \FFI $library;

    private readonly \FFI\CData $state;

    private readonly \FFI\CData $bits;

    private readonly \FFI\CData $stereo;

    private readonly \FFI\CData $shorts;

    /**
     * @param  int  $mode  0 narrow, 1 wide, 2 ultra-wide band
     * @param  int  $frame  samples of one frame
     *
     * @throws LibraryMissing
     */
    public function __construct(int $mode, private readonly int $channels, private readonly int $perPacket, private readonly int $frame)
    {
        $this->library = Library::open('
            typedef struct { int64_t fields[16]; } BITS;
            const void *speex_lib_get_mode(int mode);
            void *speex_decoder_init(const void *mode);
            void speex_decoder_destroy(void *state);
            int speex_decoder_ctl(void *state, int request, void *value);
            void speex_bits_init(BITS *bits);
            void speex_bits_destroy(BITS *bits);
            void speex_bits_read_from(BITS *bits, const char *bytes, int length);
            int speex_decode_int(void *state, BITS *bits, short *to);
            void *speex_stereo_state_init(void);
            void speex_stereo_state_destroy(void *stereo);
            void speex_decode_stereo_int(short *data, int frame, void *stereo);
        ', ['libspeex.so.1'], 'libspeex1');
        $this->state = $this->library->speex_decoder_init($this->library->speex_lib_get_mode($mode));
        $this->bits = $this->library->new('BITS');
        $this->library->speex_bits_init(\FFI::addr($this->bits));
        $this->stereo = $this->library->speex_stereo_state_init();
        $this->shorts = \FFI::new('short['.(2 * 1280).']');
        $on = \FFI::new('int');
        $on->cdata = 1;
        $this->library->speex_decoder_ctl($this->state, self::ENHANCE, \FFI::addr($on));
    }

    public function __destruct()
    {
        if (isset($this->shorts)) {
            $this->library->speex_bits_destroy(\FFI::addr($this->bits));
            $this->library->speex_decoder_destroy($this->state);
            $this->library->speex_stereo_state_destroy($this->stereo);
        }
    }

    /**
     * Decodes all frames of a packet into $room; gives the frames, over all channels together, that there were.
     *
     * @throws LibraryMissing
     */
    public function decode(string $packet, FloatBuffer $room): int
    {
        $this->library->speex_bits_read_from(\FFI::addr($this->bits), $packet, strlen($packet));
        $given = 0;
        $shorts = \FFI::cast('short*', \FFI::addr($this->shorts));
        for ($index = 0; $index < $this->perPacket; $index++) {
            if ($this->library->speex_decode_int($this->state, \FFI::addr($this->bits), $shorts) !== 0) {
                break;
            }
            if ($this->channels === 2) {
                $this->library->speex_decode_stereo_int($shorts, $this->frame, $this->stereo);
            }
            SampleConversion::get()->fromShorts($shorts, $room, $given * $this->channels, $this->frame * $this->channels);
            $given += $this->frame;
        }

        return $given;
    }
}
