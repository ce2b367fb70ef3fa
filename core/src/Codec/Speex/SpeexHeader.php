<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Speex;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;

/** The first packet of Speex in Ogg: The Speex Codec Manual 1.2, "Ogg file format", table of the header; RFC 5574. */
final readonly class SpeexHeader
{
    /** @param  int  $mode  0 narrow, 1 wide, 2 ultra-wide band */
    private function __construct(public string $bytes, public int $rate, public int $mode, public int $channels, public int $frame,
        public int $perPacket) {}

    public static function parse(string $bytes): ?self
    {
        if (strlen($bytes) < 80 || ! str_starts_with($bytes, 'Speex   ')) {
            return null;
        }
        /** @var array{r: int, m: int, c: int, f: int, p: int} $numbers */
        $numbers = unpack('x36/Vr/Vm/x4/Vc/x4/Vf/x4/Vp', $bytes);
        $per = max(1, $numbers['p']);
        $known = $numbers['m'] <= 2 && in_array($numbers['c'], [1, 2], true) && $numbers['r'] >= 6000 && $numbers['r'] <= 48000
            && $numbers['f'] >= 32 && $numbers['f'] <= 1280 && $per <= 100;

        return $known ? new self(substr($bytes, 0, 80), $numbers['r'], $numbers['m'], $numbers['c'], $numbers['f'], $per) : null;
    }

    public function audio(): AudioFormat
    {
        return new AudioFormat(Codec::Speex, $this->rate, Layout::undeclared($this->channels), null, $this->bytes,
            $this->frame * $this->perPacket);
    }
}
