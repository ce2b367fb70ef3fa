<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegVideo;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\NoTracks;

/**
 * The pictures of a video alone, without the container that holds sound beside them: ISO/IEC 11172-2, 2.4.2.2 and 13818-2, 6.2.2.1
 * (sequence header), ISO/IEC 14496-10, annex B (sequence parameter set). Named, so that nobody looks for sound in it.
 */
final class MpegVideoFormat implements Format
{
    private const SEQUENCE = "\0\0\1\xB3";

    /** Reference bits and type of a sequence parameter set: ISO/IEC 14496-10, 7.4.1. */
    private const PARAMETERS = '/^\x00{2,3}\x01[\x27\x47\x67]/';

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        $head = $bytes->size() < 16 ? '' : $bytes->read(0, 5);

        return str_starts_with($head, self::SEQUENCE) || preg_match(self::PARAMETERS, $head) === 1;
    }

    /** @throws NoTracks */
    public function open(ByteSource $bytes): Demuxer
    {
        throw NoTracks::picturesAlone($bytes->name());
    }
}
