<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Adts;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\FrameFile;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Findings;
use Octavox\Core\Media\Severity;
use Octavox\Core\Tag\Id3v2;

/** AAC with a header before every access unit: ISO/IEC 14496-3, 1.A.2.2. */
final class AdtsFormat implements Format
{
    /** Bytes; the field has 13 bits. */
    private const LONGEST_FRAME = 8191;

    /** Frames that must follow each other where nothing else tells that they are there. */
    private const AGREEING = 5;

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return self::place($bytes) !== null;
    }

    public function open(ByteSource $bytes): Demuxer
    {
        $at = self::start($bytes);
        $tags = Id3v2::ofFile($bytes);
        $place = self::place($bytes) ?? $at;
        $diagnostics = $place === $at ? []
            : [new Diagnostic(new Findings\BeginsInFrame(bytes: $place - $at), Severity::Note)];

        return FrameFile::count(new OpenedBytes('adts', $bytes, $tags, $diagnostics), new AdtsFrameParser, $place, $bytes->size());
    }

    /**
     * Where the first whole frame is: at once, or after the rest of one, as in what was cut out of a stream.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function place(ByteSource $bytes): ?int
    {
        $start = self::start($bytes);

        return FrameFile::begins($bytes, new AdtsFrameParser, $start) ? $start
            : FrameFile::search($bytes, new AdtsFrameParser, $start, self::LONGEST_FRAME, self::AGREEING);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function start(ByteSource $bytes): int
    {
        return min($bytes->size(), Id3v2::end($bytes));
    }
}
