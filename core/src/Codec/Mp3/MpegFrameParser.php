<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp3;

use Octavox\Core\Codec\FrameInfo;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;

/** MPEG audio frames of all layers, for containers that hold them as a stream. */
final class MpegFrameParser implements FrameParser
{
    public function headBytes(): int
    {
        return 4;
    }

    public function firstByte(): string
    {
        return "\xFF";
    }

    public function at(string $head): ?FrameInfo
    {
        $header = FrameHeader::parse($head);

        return $header === null || $header->bytes < 24 ? null
            : new FrameInfo($header->bytes, $header->samples, $header->layer.' '.$header->rate.' '.$header->channels);
    }

    public function audio(string $frame): AudioFormat
    {
        $header = FrameHeader::parse($frame);

        return new AudioFormat($header?->codec() ?? Codec::Mp3, $header->rate ?? 48000, Layout::undeclared($header->channels ?? 2), null,
            '', $header->samples ?? 1152);
    }

    public function payload(string $frame): string
    {
        return $frame;
    }
}
