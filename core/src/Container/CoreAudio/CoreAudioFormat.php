<?php

declare(strict_types=1);

namespace Octavox\Core\Container\CoreAudio;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;

/** CAF: Apple Core Audio Format Specification 1.0. */
final class CoreAudioFormat implements Format
{
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= 8 && $bytes->read(0, 4) === 'caff';
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new CoreAudioReader($bytes))->read();
    }
}
