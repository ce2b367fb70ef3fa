<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;

/** MP4, M4A, 3GP (ISO/IEC 14496-12 and -14) and QuickTime movies (QuickTime File Format Specification), whole or in fragments. */
final class IsoMediaFormat implements Format
{
    /** What the reader calls files of it that can hold pictures to be copied. */
    public const WITH_PICTURES = ['mp4', 'mov', 'm4a', '3gp'];

    private const FIRST_BOXES = ['ftyp', 'moov', 'mdat', 'wide', 'free', 'skip', 'moof', 'styp', 'sidx', 'pnot', 'uuid'];

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 8 && in_array($bytes->read(4, 4), self::FIRST_BOXES, true);
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new MovieReader($bytes))->read();
    }
}
