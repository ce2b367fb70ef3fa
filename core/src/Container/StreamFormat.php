<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Codec\FrameParsers;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/**
 * What the first packet of a stream says of its audio: rate and channels stand in every frame, whatever the container's entry announces.
 */
final class StreamFormat
{
    /** Bytes of a packet that tell it. */
    public const BYTES = 8192;

    /** AAC in a container has no header of its own in its packets. */
    public static function isTold(AudioFormat $audio): bool
    {
        return $audio->codec !== Codec::Aac && FrameParsers::for($audio->codec) !== null;
    }

    /** @param  string  $packet  the first bytes of the first packet that is not empty; where it is no frame, the container's word stands */
    public static function read(AudioFormat $audio, string $packet): AudioFormat
    {
        $framing = FrameParsers::for($audio->codec);
        if ($framing === null || $framing->at(substr($packet, 0, $framing->headBytes())) === null) {
            return $audio;
        }

        return $framing->audio(str_pad($packet, 16, "\0"));
    }
}
