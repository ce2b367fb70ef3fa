<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Pcm;

use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;

/** The sample library's number for each sample format (sndfile.h, SF_FORMAT_* and SF_ENDIAN_*). */
final class SampleFileFormat
{
    public static function code(SampleFormat $pcm): int
    {
        $kind = match ($pcm->kind) {
            SampleKind::Signed => match ($pcm->bits) {
                8 => 0x0001,
                16 => 0x0002,
                24 => 0x0003,
                default => 0x0004,
            },
            SampleKind::Unsigned => 0x0005,
            SampleKind::Float => $pcm->bits === 32 ? 0x0006 : 0x0007,
            SampleKind::MuLaw => 0x0010,
            SampleKind::ALaw => 0x0011,
        };

        return $kind | ($pcm->bigEndian ? 0x20000000 : 0x10000000);
    }
}
