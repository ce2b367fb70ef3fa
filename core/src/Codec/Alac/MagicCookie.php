<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Alac;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/** The set-up bytes of ALAC: "ALACMagicCookieDescription" that comes with its reference code, ALACSpecificConfig. */
final readonly class MagicCookie
{
    public const BYTES = 24;

    /** @param  int  $frames  samples a channel of one packet */
    private function __construct(public string $bytes, public int $frames, public int $bits, public int $channels, public int $rate) {}

    /** Older files put two boxes, `frma` and `alac`, before the numbers. */
    public static function parse(string $bytes): ?self
    {
        if (substr($bytes, 4, 8) === 'frmaalac' && substr($bytes, 16, 4) === 'alac') {
            $bytes = substr($bytes, 24);
        }
        if (strlen($bytes) < self::BYTES) {
            return null;
        }
        $bytes = substr($bytes, 0, self::BYTES);
        /** @var array{f: int, b: int, c: int, r: int} $numbers */
        $numbers = unpack('Nf/x/Cb/x3/Cc/x10/Nr', $bytes);
        $known = $numbers['f'] > 0 && $numbers['f'] <= 65_536 && in_array($numbers['b'], [16, 20, 24, 32], true) && $numbers['c'] >= 1
            && $numbers['c'] <= 8 && $numbers['r'] > 0;

        return $known ? new self($bytes, $numbers['f'], $numbers['b'], $numbers['c'], $numbers['r']) : null;
    }

    public function audio(): AudioFormat
    {
        return new AudioFormat(Codec::Alac, $this->rate, self::layout($this->channels), null, $this->bytes, 0, '', $this->bits);
    }

    /** The order of the channels: the same document, "Channel Layout Info". */
    public static function layout(int $channels): Layout
    {
        [$l, $r, $c, $f] = [Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency];
        [$ls, $rs, $lc, $rc, $s] = [Channel::SideLeft, Channel::SideRight, Channel::LeftOfCentre, Channel::RightOfCentre,
            Channel::BackCentre];

        return match ($channels) {
            1 => Layout::mono(),
            3 => Layout::of($c, $l, $r),
            4 => Layout::of($c, $l, $r, $s),
            5 => Layout::of($c, $l, $r, $ls, $rs),
            6 => Layout::of($c, $l, $r, $ls, $rs, $f),
            7 => Layout::of($c, $l, $r, $ls, $rs, $s, $f),
            8 => Layout::of($c, $lc, $rc, $l, $r, $ls, $rs, $f),
            default => Layout::stereo(),
        };
    }
}
