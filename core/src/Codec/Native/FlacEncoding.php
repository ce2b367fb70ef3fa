<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\LibraryMissing;

/** One FLAC encoder of the FLAC library (FLAC/stream_encoder.h). */
final class FlacEncoding
{
    /** Samples a channel of one frame. */
    public const BLOCK = 4096;

    /** The library's own usual level: 5 of 0 to 8. */
    private const LEVEL = 5;

    private readonly \FFI $library;

    private readonly \FFI\CData $encoder;

    /** @var list<\Closure> kept alive as long as the library may call them */
    private readonly array $calls;

    private readonly SampleRoom $numbers;

    private readonly bool $ready;

    private string $head = '';

    /** @var list<array{string, int}> */
    private array $frames = [];

    /**
     * @param  int  $bits  4 to 24
     *
     * @throws LibraryMissing
     */
    public function __construct(int $rate, int $channels, private readonly int $bits,
        EncoderSettings $settings = new EncoderSettings, bool $sums = true)
    {
        $this->library = FlacLibrary::open();
        $this->numbers = new SampleRoom;
        $write = function (\FFI\CData $encoder, \FFI\CData $bytes, int $count, int $samples, int $frame, ?\FFI\CData $client): int {
            $data = \FFI::string(\FFI::cast('char*', $bytes), $count);
            $samples === 0 ? $this->head .= $data : $this->frames[] = [$data, $samples];

            return 0;
        };
        $metadata = function (\FFI\CData $encoder, \FFI\CData $info, ?\FFI\CData $client): void {
            $one = $info[0];
            // RFC 9639, 8.2: the bytes of STREAMINFO from its fields
            $this->head = 'fLaC'."\x80\0\0\x22".pack('n2', $one->min_block, $one->max_block).substr(pack('N', $one->min_frame),
                1).substr(pack('N', $one->max_frame), 1)
                .pack('J', (int) $one->rate << 44 | ((int) $one->channels - 1) << 41 | ((int) $one->bits - 1) << 36
                    | (int) $one->total & 0xFFFFFFFFF)
                .\FFI::string(\FFI::cast('char*', \FFI::addr($one->md5[0])), 16);
        };
        $this->calls = [$write, $metadata];
        $this->encoder = $this->library->FLAC__stream_encoder_new();
        $this->library->FLAC__stream_encoder_set_channels($this->encoder, $channels);
        $this->library->FLAC__stream_encoder_set_bits_per_sample($this->encoder, $bits);
        $this->library->FLAC__stream_encoder_set_sample_rate($this->encoder, $rate);
        $this->library->FLAC__stream_encoder_set_compression_level($this->encoder, $settings->compression ?? self::LEVEL);
        $this->library->FLAC__stream_encoder_set_blocksize($this->encoder, self::BLOCK);
        $this->library->FLAC__stream_encoder_set_streamable_subset($this->encoder, 0);
        $this->library->FLAC__stream_encoder_set_do_md5($this->encoder, $sums ? 1 : 0);
        $this->ready = $this->library->FLAC__stream_encoder_init_stream($this->encoder, $this->calls[0], null, null,
            $this->calls[1], null) === 0;
    }

    public function __destruct()
    {
        if (isset($this->encoder)) {
            $this->library->FLAC__stream_encoder_delete($this->encoder);
        }
    }

    public function isReady(): bool
    {
        return $this->ready;
    }

    /** The 34 bytes of STREAMINFO; the sums in it are right after the end. */
    public function streamInfo(): string
    {
        return substr($this->head, 8, 34);
    }

    /**
     * @return list<array{string, int}> finished frames, each with its number of samples
     *
     * @throws LibraryMissing
     */
    public function encode(Block $block): array
    {
        $this->library->FLAC__stream_encoder_process_interleaved($this->encoder,
            $this->numbers->toNumbers($block->buffer, $block->first(), $block->samples(), $this->bits), $block->frames);

        return $this->taken();
    }

    /** @return list<array{string, int}> */
    public function finish(): array
    {
        $this->library->FLAC__stream_encoder_finish($this->encoder);

        return $this->taken();
    }

    /** @return list<array{string, int}> */
    private function taken(): array
    {
        $frames = $this->frames;
        $this->frames = [];

        return $frames;
    }
}
