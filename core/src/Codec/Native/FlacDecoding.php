<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Interleaving;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\SampleConversion;

/** One FLAC decoder of the FLAC library, fed with whole frames (FLAC/stream_decoder.h). */
final class FlacDecoding
{
    /** FLAC__STREAM_DECODER_READ_STATUS_*, _WRITE_STATUS_*, and the state after an end. */
    private const READ_CONTINUE = 0;

    private const READ_END = 1;

    private const WRITE_CONTINUE = 0;

    private const STATE_END_OF_STREAM = 4;

    private readonly \FFI $library;

    private readonly \FFI\CData $decoder;

    /** @var list<\Closure> kept alive as long as the library may call them */
    private readonly array $calls;

    private string $input;

    private int $inputAt = 0;

    private ?FloatBuffer $room = null;

    private int $offset = 0;

    private int $frames = 0;

    private string $complaint = '';

    /** @var list<FloatBuffer> one for each channel */
    private array $apart = [];

    /**
     * @param  string  $streamInfo  the 34 bytes of STREAMINFO
     *
     * @throws LibraryMissing
     */
    public function __construct(string $streamInfo, private readonly int $channels)
    {
        $this->library = FlacLibrary::open();
        // RFC 9639, 8: the marker, then one metadata block, the last one, of type 0
        $this->input = 'fLaC'."\x80\0\0\x22".$streamInfo;
        $read = function (\FFI\CData $decoder, \FFI\CData $to, \FFI\CData $bytes, ?\FFI\CData $client): int {
            $count = min((int) $bytes[0], strlen($this->input) - $this->inputAt);
            $bytes[0] = $count;
            if ($count === 0) {
                return self::READ_END;
            }
            \FFI::memcpy($to, substr($this->input, $this->inputAt, $count), $count);
            $this->inputAt += $count;

            return self::READ_CONTINUE;
        };
        $write = function (\FFI\CData $decoder, \FFI\CData $frame, \FFI\CData $samples, ?\FFI\CData $client): int {
            $this->take((int) $frame[0]->blocksize, (int) $frame[0]->channels, (int) $frame[0]->bits, $samples);

            return self::WRITE_CONTINUE;
        };
        $error = function (\FFI\CData $decoder, int $status, ?\FFI\CData $client): void {
            $this->complaint = ['lost synchronisation', 'a damaged frame header', 'a wrong checksum', 'an unknown form',
                'damaged metadata'][$status] ?? 'damage';
        };
        $this->calls = [$read, $write, $error];
        $this->decoder = $this->library->FLAC__stream_decoder_new();
        $this->library->FLAC__stream_decoder_init_stream($this->decoder, $this->calls[0], null, null, null, null, $this->calls[1], null,
            $this->calls[2], null);
        $this->library->FLAC__stream_decoder_process_until_end_of_metadata($this->decoder);
    }

    public function __destruct()
    {
        if (isset($this->decoder)) {
            $this->library->FLAC__stream_decoder_delete($this->decoder);
        }
    }

    /**
     * Decodes one frame into $room, interleaved, from sample $offset on.
     *
     * @return string empty, or what is wrong
     */
    public function decode(string $frame, FloatBuffer $room, int $offset): string
    {
        $this->input = $frame;
        $this->inputAt = 0;
        $this->room = $room;
        $this->offset = $offset;
        $this->frames = 0;
        $this->complaint = '';
        if ($this->library->FLAC__stream_decoder_get_state($this->decoder) === self::STATE_END_OF_STREAM) {
            $this->library->FLAC__stream_decoder_flush($this->decoder);
        }
        $this->library->FLAC__stream_decoder_process_single($this->decoder);

        return $this->outcome();
    }

    private function outcome(): string
    {
        return $this->frames === 0 && $this->complaint === '' ? 'no sound in it' : $this->complaint;
    }

    /** Frames over all channels together that the last call gave. */
    public function frames(): int
    {
        return $this->frames;
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    private function take(int $frames, int $channels, int $bits, \FFI\CData $samples): void
    {
        // One call may give two frames, where one has ended early.
        $at = $this->offset + $this->frames * $channels;
        if ($this->room === null || $channels !== $this->channels || $at + $frames * $channels > $this->room->capacity
            || $bits < 4 || $bits > 32) {
            $this->complaint = 'a frame of another form';

            return;
        }
        if (($this->apart[0]->capacity ?? -1) < $frames) {
            $this->apart = array_map(fn (): FloatBuffer => new FloatBuffer($frames), range(1, $channels));
        }
        foreach ($this->apart as $channel => $room) {
            SampleConversion::get()->fromNumbers($samples[$channel], $bits, $room, 0, $frames);
        }
        Interleaving::get()->join(array_map(fn (FloatBuffer $room): \FFI\CData => $room->at(0), $this->apart), $this->room,
            $at, $frames);
        $this->frames += $frames;
    }
}
