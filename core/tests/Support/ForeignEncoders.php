<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

use Octavox\Core\Bytes\BitWriter;
use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Codec\Speex\SpeexHeader;
use Octavox\Core\Container\Ogg\OggWriter;
use Octavox\Core\Media\Packet;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Tag\VorbisComment;

/** Sound in codecs that Octavox reads but does not write. */
final class ForeignEncoders
{
    /**
     * One H.265 picture, encoded by the library that writes HEIF images for the graphics library.
     *
     * @return array{string, list<string>, string} the record `hvcC`, the three parameter sets, the unit of the picture
     */
    public static function hevc(int $width, int $height): array
    {
        $library = \FFI::cdef('
            void *gdImageCreateTrueColor(int width, int height);
            void gdImageFilledRectangle(void *image, int left, int top, int right, int bottom, int colour);
            void *gdImageHeifPtrEx(void *image, int *size, int quality, int codec, const char *chroma);
        ', 'libgd.so.3');
        $image = $library->gdImageCreateTrueColor($width, $height);
        $library->gdImageFilledRectangle($image, 10, 10, intdiv($width, 2), intdiv($height, 2), 0xFF8800);
        $size = \FFI::new('int');
        $heif = \FFI::string(\FFI::cast('char*', $library->gdImageHeifPtrEx($image, \FFI::addr($size), 80, 1, '420')), $size->cdata);
        $body = fn (string $type): string => substr($heif, strpos($heif, $type) + 4,
            unpack('N', substr($heif, strpos($heif, $type) - 4, 4))[1] - 8);
        $record = $body('hvcC');
        $sets = [];
        for ($at = 23, $arrays = ord($record[22]); $arrays > 0; $arrays--) {
            $length = unpack('n', substr($record, $at + 3, 2))[1];
            $sets[] = substr($record, $at + 5, $length);
            $at += 5 + $length;
        }

        return [$record, $sets, substr($body('mdat'), 4)];
    }

    /**
     * One AC-3 frame of 512 kbit/s whose channels each hold one spectral line: ATSC A/52, 5.3. Exponents are flat, and so much room is
     * given that every line has sixteen bits, which spares the sum of bit allocation.
     *
     * @param  list<int>  $lines  the line of each channel, one or two channels, 0 to 72
     */
    public static function ac3(array $lines): string
    {
        $channels = count($lines);
        $bits = (new BitWriter)->bits(0x0B77, 16)->bits(0, 16)->bits(0, 2)->bits(32, 6)->bits(8, 5)->bits(0, 3)->bits($channels, 3);
        if ($channels === 2) {
            $bits->bits(0, 2);
        }
        $bits->bits(0, 1)->bits(31, 5)->bits(0, 3 + 2 + 3);
        for ($block = 0; $block < 6; $block++) {
            $first = $block === 0;
            $bits->bits(0, 2 * $channels + 1)->bits($first ? 2 : 0, $first ? 2 : 1);
            if ($channels === 2) {
                $bits->bits($first ? 16 : 0, $first ? 5 : 1);
            }
            $bits->bits($first ? (1 << 2 * $channels) - 1 & 0x5 : 0, 2 * $channels);
            for ($channel = 0; $first && $channel < $channels; $channel++) {
                $bits->bits(0, 6);
            }
            for ($channel = 0; $first && $channel < $channels; $channel++) {
                $bits->bits(3, 4);
                for ($group = 0; $group < 24; $group++) {
                    // Three differences of nothing: (2 × 5 + 2) × 5 + 2
                    $bits->bits(62, 7);
                }
                $bits->bits(0, 2);
            }
            $bits->bits($first ? 1 : 0, 1);
            if ($first) {
                $bits->bits(0, 8)->bits(7, 3);
            }
            $bits->bits($first ? 1 : 0, 1);
            if ($first) {
                $bits->bits(63, 6);
                for ($channel = 0; $channel < $channels; $channel++) {
                    $bits->bits(15, 4)->bits(0, 3);
                }
            }
            $bits->bits(0, 2);
            foreach ($lines as $line) {
                for ($mantissa = 0; $mantissa < 73; $mantissa++) {
                    $bits->bits($mantissa === $line ? 20_000 : 0, 16);
                }
            }
        }

        return str_pad($bits->bytes(), 2048, "\0");
    }

    /**
     * One DTS core frame of 512 samples whose channels each hold a tone in one of 32 bands: ETSI TS 102 114, 5.3 and 5.4. Nothing is packed
     * in codes of variable length: five bits say how many bits a band has, seven its scale.
     *
     * @param  int  $mode  the arrangement of channels (table 5-4)
     * @param  list<int>  $bands  the band of each channel in the order of the standard
     * @param  bool  $low  whether low frequencies go with it: silence here
     */
    public static function dts(int $mode, array $bands, bool $low = false, int $loudness = 8000): string
    {
        $channels = count($bands);
        $bits = (new BitWriter)->bits(0x7FFE, 16)->bits(0x8001, 16)->bits(1, 1)->bits(31, 5)->bits(0, 1)->bits(15, 7)->bits(2048 - 1, 14)
            ->bits($mode, 6)->bits(13, 4)->bits(24, 5)->bits(0, 5)->bits(0, 3)->bits(0, 2)->bits($low ? 2 : 0, 2)->bits(1, 1)
            // Filters without perfect reconstruction, version 7, no copy, 16 bits, no sums, level as it is
            ->bits(0, 1)->bits(7, 4)->bits(0, 2)->bits(0, 3)->bits(0, 2)->bits(0, 4)
            // Two subframes
            ->bits(1, 4)->bits($channels - 1, 3);
        foreach ([[30, 5], [31, 5], [0, 3], [0, 2], [6, 3], [6, 3]] as [$value, $width]) {
            for ($channel = 0; $channel < $channels; $channel++) {
                $bits->bits($value, $width);
            }
        }
        foreach ([1 => 1, 2 => 2, 3 => 2, 4 => 2, 5 => 2, 6 => 3, 7 => 3, 8 => 3, 9 => 3, 10 => 3] as $width) {
            for ($channel = 0; $channel < $channels; $channel++) {
                // The highest number means that no code is used, and that nothing is adjusted.
                $bits->bits((1 << $width) - 1, $width);
            }
        }
        for ($subframe = 0; $subframe < 2; $subframe++) {
            // One sub-subframe, no prediction
            $bits->bits(0, 2)->bits(0, 3);
            for ($band = 0; $band < 32 * $channels; $band++) {
                $bits->bits(0, 1);
            }
            foreach ($bands as $own) {
                for ($band = 0; $band < 32; $band++) {
                    $bits->bits($band === $own ? 19 : 0, 5);
                }
            }
            foreach ($bands as $ignored) {
                $bits->bits(90, 7);
            }
            if ($low) {
                for ($sample = 0; $sample < 4; $sample++) {
                    $bits->bits(0, 8);
                }
                $bits->bits(0, 8);
            }
            foreach ($bands as $ignored) {
                foreach ([1, 0, -1, 0, 1, 0, -1, 0] as $value) {
                    $bits->bits($loudness * $value, 16);
                }
            }
            $bits->bits(0xFFFF, 16);
        }

        return str_pad($bits->bytes(), 2048, "\0");
    }

    /**
     * MP3 of free format, in mono.
     *
     * @param  list<float>  $samples  at 44.1 kHz
     */
    public static function freeMp3(array $samples, int $kbps): string
    {
        static $library = null;
        $library ??= \FFI::cdef('void *lame_init(void); int lame_set_in_samplerate(void *g, int v); int lame_set_num_channels(void *g, '
            .'int v); int lame_set_mode(void *g, int v); int lame_set_brate(void *g, int v); int lame_set_free_format(void *g, int v); '
                .'int lame_set_bWriteVbrTag(void *g, int v); int lame_init_params(void *g); int lame_encode_buffer_ieee_float(void *g, '
                    .'const float *l, const float *r, int frames, unsigned char *out, int room); int lame_encode_flush(void *g, '
                        .'unsigned char *out, int room); int lame_close(void *g);', 'libmp3lame.so.0');
        $encoder = $library->lame_init();
        foreach (['in_samplerate' => 44100, 'num_channels' => 1, 'mode' => 3, 'brate' => $kbps, 'free_format' => 1,
            'bWriteVbrTag' => 0] as $name => $value) {
            $library->{'lame_set_'.$name}($encoder, $value);
        }
        $library->lame_init_params($encoder);
        $count = count($samples);
        $in = \FFI::new("float[$count]");
        foreach ($samples as $index => $sample) {
            $in[$index] = $sample;
        }
        $room = intdiv($count * 5, 4) + 100_000;
        $out = \FFI::new("unsigned char[$room]");
        $first = \FFI::cast('float*', \FFI::addr($in));
        $length = $library->lame_encode_buffer_ieee_float($encoder, $first, $first, $count,
            \FFI::cast('unsigned char*', \FFI::addr($out)), $room);
        $length += $library->lame_encode_flush($encoder, \FFI::cast('unsigned char*', \FFI::addr($out[0])) + $length, $room - $length);
        $library->lame_close($encoder);

        return \FFI::string(\FFI::cast('char*', \FFI::addr($out)), $length);
    }

    /** @param  list<float>  $samples  at 8 kHz */
    public static function amr(array $samples): string
    {
        $library = \FFI::cdef('void *Encoder_Interface_init(int dtx); int Encoder_Interface_Encode(void *s, int mode, const short '
            .'*speech, unsigned char *out, int force); void Encoder_Interface_exit(void *s);', 'libopencore-amrnb.so.0');
        $state = $library->Encoder_Interface_init(0);
        $speech = \FFI::new('short[160]');
        $out = \FFI::new('unsigned char[64]');
        $file = "#!AMR\n";
        foreach (array_chunk($samples, 160) as $chunk) {
            foreach (array_pad($chunk, 160, 0.0) as $index => $sample) {
                $speech[$index] = (int) round($sample * 32767);
            }
            // Mode 7: 12.2 kbit/s
            $length = $library->Encoder_Interface_Encode($state, 7, \FFI::cast('short*', \FFI::addr($speech)),
                \FFI::cast('unsigned char*', \FFI::addr($out)), 0);
            $file .= \FFI::string(\FFI::cast('char*', \FFI::addr($out)), $length);
        }
        $library->Encoder_Interface_exit($state);

        return $file;
    }

    /** @param  list<float>  $samples  at 16 kHz, in Ogg */
    public static function speex(array $samples): string
    {
        // Kept for good: types of a library that is let go would take their values with them.
        static $library = null;
        $library ??= \FFI::cdef('typedef struct { int64_t fields[16]; } BITS; const void *speex_lib_get_mode(int mode); void '
            .'*speex_encoder_init(const void *mode); void speex_encoder_destroy(void *s); int speex_encoder_ctl(void *s, int request, '
                .'void *value); void speex_bits_init(BITS *b); void speex_bits_reset(BITS *b); int speex_bits_write(BITS *b, char *to, '
                    .'int most); int speex_encode_int(void *s, short *in, BITS *b);', 'libspeex.so.1');
        $state = $library->speex_encoder_init($library->speex_lib_get_mode(1));
        $quality = \FFI::new('int');
        $quality->cdata = 10;
        // SPEEX_SET_QUALITY
        $library->speex_encoder_ctl($state, 4, \FFI::addr($quality));
        $bits = $library->new('BITS');
        $library->speex_bits_init(\FFI::addr($bits));
        $header = str_pad('Speex   1.2', 28, "\0").pack('V13', 1, 80, 16000, 1, 4, 1, 0xFFFFFFFF, 320, 0, 1, 0, 0, 0);
        $sink = new MemorySink;
        $writer = new OggWriter($sink, [$header, VorbisComment::write(Tags::none(), 'test')], 0, 0);
        $in = \FFI::new('short[320]');
        $out = \FFI::new('char[500]');
        foreach (array_chunk($samples, 320) as $number => $chunk) {
            foreach (array_pad($chunk, 320, 0.0) as $index => $sample) {
                $in[$index] = (int) round($sample * 32767);
            }
            $library->speex_bits_reset(\FFI::addr($bits));
            $library->speex_encode_int($state, \FFI::cast('short*', \FFI::addr($in)), \FFI::addr($bits));
            $length = $library->speex_bits_write(\FFI::addr($bits), \FFI::cast('char*', \FFI::addr($out)), 500);
            $writer->write(new Packet(\FFI::string(\FFI::cast('char*', \FFI::addr($out)), $length), 320 * $number, 320));
        }
        $writer->finish(count($samples), (SpeexHeader::parse($header) ?? throw new \LogicException('The header is wrong.'))->audio());
        $library->speex_encoder_destroy($state);

        return $sink->bytes();
    }
}
