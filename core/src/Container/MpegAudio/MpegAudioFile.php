<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegAudio;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\EncoderNamed;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** An opened MP3, MP2 or MP1 file. */
final class MpegAudioFile implements Demuxer, EncoderNamed
{
    private readonly ByteSource $bytes;

    /**
     * @param  int  $free  bytes of a frame of free format without padding, 0 in a stream with stated bit rates
     * @param  string  $maker  name of the encoder, empty where nobody tells
     */
    public function __construct(private readonly OpenedBytes $file, private readonly Track $track, private readonly int $from,
        private readonly int $end, private readonly FrameHeader $first, private readonly int $free, private readonly string $maker = '')
    {
        $this->bytes = $file->bytes;
    }

    public function container(): string
    {
        return $this->first->codec()->value;
    }

    public function source(): ByteSource
    {
        return $this->bytes;
    }

    public function tracks(): array
    {
        return [$this->track];
    }

    public function tags(): Tags
    {
        return $this->file->tags;
    }

    public function chapters(): array
    {
        return $this->file->tags->chapters;
    }

    public function encoderName(): string
    {
        return $this->maker;
    }

    public function diagnostics(): array
    {
        return $this->file->diagnostics;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        $window = new Window($this->bytes, $this->bytes->size(), 262144);
        $first = $from - CodecModules::of(Codec::Mp3)->preroll() * $this->first->samples;
        $at = 0;
        foreach (FrameWalk::over($window, $this->from, $this->end, $this->free, $this->bytes->size()) as [$place, $header]) {
            // The decoder's delay pushes sound out of the frame it belongs to into the next.
            if ($at >= $until + $header->samples) {
                return;
            }
            if ($at + $header->samples > $first) {
                yield new Packet($window->read($place, $header->bytes), $at, $header->samples);
            }
            $at += $header->samples;
        }
    }
}
