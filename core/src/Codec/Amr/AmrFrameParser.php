<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Amr;

use Octavox\Core\Codec\FrameInfo;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;

/** AMR frames of 20 ms in the storage format: RFC 4867, 5.3; lengths after 3GPP TS 26.101 and TS 26.201, annex A. */
final class AmrFrameParser implements FrameParser
{
    /** Bytes after the one that tells the kind, by kind. */
    private const NARROW = [12, 13, 15, 17, 19, 20, 26, 31, 5, 0, 0, 0, 0, 0, 0, 0];

    private const WIDE = [17, 23, 32, 36, 40, 46, 50, 58, 60, 5, 0, 0, 0, 0, 0, 0];

    public function __construct(private readonly bool $wide) {}

    public function headBytes(): int
    {
        return 1;
    }

    public function firstByte(): string
    {
        return '';
    }

    public function at(string $head): ?FrameInfo
    {
        $kind = ord($head[0] ?? "\xFF");
        if (($kind & 0x83) !== 0) {
            return null;
        }

        return new FrameInfo(1 + ($this->wide ? self::WIDE : self::NARROW)[$kind >> 3 & 15], $this->wide ? 320 : 160, 'amr');
    }

    public function audio(string $frame): AudioFormat
    {
        return $this->wide
            ? new AudioFormat(Codec::AmrWide, 16000, Layout::mono(), null, '', 320)
            : new AudioFormat(Codec::AmrNarrow, 8000, Layout::mono(), null, '', 160);
    }

    public function payload(string $frame): string
    {
        return $frame;
    }
}
