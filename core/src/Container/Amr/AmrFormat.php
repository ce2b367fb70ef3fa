<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Amr;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Amr\AmrFrameParser;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\FrameFile;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Tag\Tags;

/** AMR-NB and AMR-WB in the storage format of one channel: RFC 4867, 5. */
final class AmrFormat implements Format
{
    private const NARROW = "#!AMR\n";

    private const WIDE = "#!AMR-WB\n";

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() > 9 && (str_starts_with($bytes->read(0, 9), self::NARROW) || $bytes->read(0, 9) === self::WIDE);
    }

    public function open(ByteSource $bytes): Demuxer
    {
        $wide = $bytes->read(0, 9) === self::WIDE;

        return FrameFile::count(new OpenedBytes('amr', $bytes, Tags::none()), new AmrFrameParser($wide),
            strlen($wide ? self::WIDE : self::NARROW), $bytes->size());
    }
}
