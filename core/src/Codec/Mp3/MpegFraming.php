<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp3;

use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\FrameFacts;
use Octavox\Core\Codec\Framing;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Sound\Layout;

/** MPEG audio frames of all layers, for containers that hold them as a stream. */
final class MpegFraming implements Framing
{
    public function headBytes(): int
    {
        return 4;
    }

    public function firstByte(): string
    {
        return "\xFF";
    }

    public function at(string $head): ?FrameFacts
    {
        $header = FrameHeader::parse($head);

        return $header === null || $header->bytes < 24 ? null : new FrameFacts($header->bytes, $header->samples, $header->layer.' '.$header->rate.' '.$header->channels);
    }

    public function form(string $frame): SoundForm
    {
        $header = FrameHeader::parse($frame);

        return new SoundForm($header?->codec() ?? Codec::Mp3, $header->rate ?? 48000, Layout::undeclared($header->channels ?? 2), null, '', $header->samples ?? 1152);
    }

    public function payload(string $frame): string
    {
        return $frame;
    }
}
