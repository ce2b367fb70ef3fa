<?php

declare(strict_types=1);

namespace Octavox\Core\Container\CoreAudio;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;

/** CAF: Apple Core Audio Format Specification 1.0. */
final class CoreAudioFormat implements Format
{
    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 8 && $bytes->read(0, 4) === 'caff';
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new CoreAudioReader($bytes))->read();
    }
}
