<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\SampleConversion;

/** One AMR decoder of the OpenCORE libraries (interf_dec.h, dec_if.h). */
final class AmrLibrary
{
    private readonly \FFI $library;

    private readonly \FFI\CData $state;

    private readonly \FFI\CData $shorts;

    /** @throws LibraryMissing */
    public function __construct(private readonly bool $wide)
    {
        $this->library = $wide
            ? Library::open('void *D_IF_init(void); void D_IF_decode(void *s, const char *bits, short *to, int bad); void '
                .'D_IF_exit(void *s);', ['libopencore-amrwb.so.0'], 'libopencore-amrwb0')
            : Library::open('void *Decoder_Interface_init(void); void Decoder_Interface_Decode(void *s, const char *bits, short *to, '
                .'int bad); void Decoder_Interface_exit(void *s);', ['libopencore-amrnb.so.0'], 'libopencore-amrnb0');
        $this->state = $wide ? $this->library->D_IF_init() : $this->library->Decoder_Interface_init();
        $this->shorts = \FFI::new('short[320]');
    }

    public function __destruct()
    {
        if (isset($this->shorts)) {
            $this->wide ? $this->library->D_IF_exit($this->state) : $this->library->Decoder_Interface_exit($this->state);
        }
    }

    /**
     * Decodes one frame of 20 ms, which must be whole, into $room from sample $offset on.
     *
     * @throws LibraryMissing
     */
    public function decode(string $frame, FloatBuffer $room, int $offset): void
    {
        // The library reads as much as the longest frame has.
        $frame = str_pad($frame, 64, "\0");
        $shorts = \FFI::cast('short*', \FFI::addr($this->shorts));
        $this->wide ? $this->library->D_IF_decode($this->state, $frame, $shorts, 0)
            : $this->library->Decoder_Interface_Decode($this->state, $frame, $shorts, 0);
        SampleConversion::get()->fromShorts($shorts, $room, $offset, $this->wide ? 320 : 160);
    }
}
