<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Encoder and decoder of the Opus library for any number of streams in a packet (opus_multistream.h, opus_defines.h). */
final class OpusLibrary
{
    /** OPUS_APPLICATION_AUDIO */
    private const AUDIO = 2049;

    private const SET_BITRATE = 4002;

    private const GET_LOOKAHEAD = 4027;

    private const SET_VBR = 4006;

    private const SET_GAIN = 4034;

    /** No packet of 960 samples is longer, for each stream. */
    private const MOST_PACKET = 4000;

    private readonly \FFI\CData $out;

    private function __construct(private readonly \FFI $library, private readonly ?\FFI\CData $decoder,
        private readonly ?\FFI\CData $encoder, private readonly int $room)
    {
        $this->out = \FFI::new('unsigned char['.max(1, $room).']');
    }

    public function __destruct()
    {
        if ($this->decoder !== null) {
            $this->library->opus_multistream_decoder_destroy($this->decoder);
        }
        if ($this->encoder !== null) {
            $this->library->opus_multistream_encoder_destroy($this->encoder);
        }
    }

    /**
     * @param  string  $mapping  which stream's channel each channel is, a byte each
     * @param  int  $gain  256ths of a decibel, applied to the decoded sound
     * @return ?self null where the numbers do not fit each other
     *
     * @throws LibraryMissing
     */
    public static function decoder(int $channels, int $streams, int $coupled, string $mapping, int $gain): ?self
    {
        $library = self::open();
        $error = \FFI::new('int');
        $decoder = $library->opus_multistream_decoder_create(48000, $channels, $streams, $coupled, $mapping, \FFI::addr($error));
        if ($decoder === null || $error->cdata !== 0) {
            return null;
        }
        if ($gain !== 0) {
            $library->opus_multistream_decoder_ctl($decoder, self::SET_GAIN, $gain);
        }

        return new self($library, $decoder, null, 0);
    }

    /**
     * @param  int  $family  RFC 7845, 5.1.1
     * @param  int  $streams  is set
     * @param  int  $coupled  is set
     * @param  string  $mapping  is set
     * @return ?self null where the encoder refuses
     *
     * @throws LibraryMissing
     */
    public static function encoder(int $channels, int $family, RateControl $rateControl, int &$streams, int &$coupled,
        string &$mapping): ?self
    {
        $library = self::open();
        $error = \FFI::new('int');
        $count = \FFI::new('int');
        $pairs = \FFI::new('int');
        $map = \FFI::new('unsigned char[255]');
        $encoder = $library->opus_multistream_surround_encoder_create(48000, $channels, $family, \FFI::addr($count), \FFI::addr($pairs),
            $map, self::AUDIO, \FFI::addr($error));
        if ($encoder === null || $error->cdata !== 0) {
            return null;
        }
        [$streams, $coupled, $mapping] = [(int) $count->cdata, (int) $pairs->cdata, \FFI::string(\FFI::cast('char*', \FFI::addr($map[0])),
            $channels)];
        $library->opus_multistream_encoder_ctl($encoder, self::SET_BITRATE, $rateControl->kbps * 1000);
        if ($rateControl->mode === RateMode::Constant) {
            $library->opus_multistream_encoder_ctl($encoder, self::SET_VBR, 0);
        }

        return new self($library, null, $encoder, self::MOST_PACKET * $streams);
    }

    /** Samples at 48 kHz by which the encoder is late. */
    public function lookahead(): int
    {
        $value = \FFI::new('int');
        $this->library->opus_multistream_encoder_ctl($this->encoder, self::GET_LOOKAHEAD, \FFI::addr($value));

        return (int) $value->cdata;
    }

    /** Decodes into $room from sample $offset on; gives samples a channel, or a negative number where it is damaged. */
    public function decode(string $packet, FloatBuffer $room, int $offset, int $most): int
    {
        return (int) $this->library->opus_multistream_decode_float($this->decoder, $packet, strlen($packet), $room->at($offset), $most, 0);
    }

    /** Encodes $frames samples a channel from sample $offset on; empty where it failed. */
    public function encode(FloatBuffer $from, int $offset, int $frames): string
    {
        $bytes = (int) $this->library->opus_multistream_encode_float($this->encoder, $from->at($offset), $frames, $this->out, $this->room);

        return $bytes > 0 ? \FFI::string(\FFI::cast('char*', \FFI::addr($this->out[0])), $bytes) : '';
    }

    /** @throws LibraryMissing */
    public static function version(): string
    {
        return (string) self::open()->opus_get_version_string();
    }

    /** @throws LibraryMissing */
    private static function open(): \FFI
    {
        return Library::open('
            void *opus_multistream_decoder_create(int rate, int channels, int streams, int coupled, const char *mapping, int *error);
            int opus_multistream_decode_float(void *d, const char *data, int size, float *to, int most, int fec);
            int opus_multistream_decoder_ctl(void *d, int request, ...);
            void opus_multistream_decoder_destroy(void *d);
            void *opus_multistream_surround_encoder_create(int rate, int channels, int family, int *streams, int *coupled,
                unsigned char *mapping, int application, int *error);
            int opus_multistream_encode_float(void *e, const float *from, int frames, unsigned char *to, int most);
            int opus_multistream_encoder_ctl(void *e, int request, ...);
            void opus_multistream_encoder_destroy(void *e);
            const char *opus_get_version_string(void);
        ', ['libopus.so.0'], 'libopus0');
    }
}
