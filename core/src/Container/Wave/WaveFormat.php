<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;

/**
 * WAV: Multimedia Programming Interface and Data Specifications 1.0; Multiple Channel Audio Data and WAVE Files;
 * its form RIFX, whose numbers begin with the most significant byte; the 64-bit forms RF64 (EBU Tech 3306) and BW64 (ITU-R BS.2088).
 */
final class WaveFormat implements Format
{
    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 12 && in_array($bytes->read(0, 4), ['RIFF', 'RIFX', 'RF64', 'BW64'], true)
            && $bytes->read(8, 4) === 'WAVE';
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new WaveReader($bytes))->read();
    }
}
