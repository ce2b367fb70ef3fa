<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegAudio;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\Mp3\Mp3Decoder;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Media;
use Octavox\Core\Container\Timeline;
use Octavox\Core\Container\Track;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\ApeTag;
use Octavox\Core\Tag\Id3v1;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\Tags;

/** Reads tags and the info header; without one, every frame is counted, so that the length is exact. */
final class MpegAudioReader
{
    private Tags $trailing;

    public function __construct(private readonly ByteSource $bytes, private readonly int $start)
    {
        $this->trailing = Tags::none();
    }

    public function read(): Media
    {
        $head = $this->bytes->read($this->start, min(4096, $this->bytes->size() - $this->start));
        $free = FrameHeader::parse($head) === null ? FreeFormat::frameBytes($this->bytes, $this->start) : 0;
        $header = FrameHeader::parse($head) ?? FrameHeader::free($head, $free) ?? throw BrokenStructure::at($this->bytes->name(), $this->start, 'its first frame cannot be read');
        $info = InfoHeader::parse(substr($head, 0, $header->bytes)) ?? InfoHeader::parseOther(substr($head, 0, $header->bytes));
        $from = $info === null ? $this->start : $this->start + $header->bytes;
        // A stream of free format has an info frame with a stated bit rate before it.
        $free = $info === null ? $free : FreeFormat::frameBytes($this->bytes, $from);
        $header = $free === 0 ? $header : FrameHeader::free($this->bytes->read($from, 4), $free) ?? $header;
        $end = $this->end();
        [$frames, $variable] = $info !== null && $info->frames > 0 && $info->frames <= intdiv($end - $from, 24) + 1
            ? [$info->frames, $info->variable]
            : $this->count($from, $end, $free);
        $length = $frames * $header->samples;
        // Without a stated delay the frames are presented whole, the decoder's own delay included.
        $skip = $info?->delay === null ? 0 : $info->delay + Mp3Decoder::DELAY;
        $samples = $info?->delay === null ? $length : max(0, $length - $info->delay - (int) $info->padding);
        $variant = match (true) {
            $free > 0 => $header->codec()->label().', free format',
            $header->codec() === Codec::Mp3 && $variable => 'MP3, variable rate',
            default => '',
        };
        $form = new SoundForm($header->codec(), $header->rate, $header->channels === 1 ? Layout::mono() : Layout::stereo(), null, '', $header->samples, $variant);

        return new MpegAudioFile($this->bytes, Track::sound(1, $form, Timeline::plain($samples, $skip, $length), max(0, $end - $from)), $from, $end, $header, $this->tags(), $free);
    }

    /** Without the tags at the end: an APE tag, then the 128 bytes of ID3v1. */
    private function end(): int
    {
        $end = $this->bytes->size();
        if ($end >= Id3v1::BYTES + $this->start) {
            $old = $this->bytes->read($end - Id3v1::BYTES, Id3v1::BYTES);
            if (str_starts_with($old, 'TAG')) {
                $this->trailing = Id3v1::read($old);
                $end -= Id3v1::BYTES;
            }
        }
        $ape = $end >= ApeTag::FOOTER + $this->start ? ApeTag::length($this->bytes->read($end - ApeTag::FOOTER, ApeTag::FOOTER)) : 0;
        if ($ape > 0 && $ape <= $end - $this->start) {
            $read = ApeTag::read($this->bytes->read($end - $ape, $ape));
            $this->trailing = $read->over($this->trailing);
            $end -= $ape;
        }

        return $end;
    }

    /** @return array{int, bool} number of frames, whether their bit rates differ */
    private function count(int $from, int $end, int $free): array
    {
        $frames = 0;
        $rates = [];
        foreach (FrameWalk::over(new Window($this->bytes, $end), $from, $end, $free) as [, $header]) {
            $frames++;
            $rates[$header->kbps] = true;
        }

        return [$frames, count($rates) > 1];
    }

    private function tags(): Tags
    {
        $length = Id3v2::length($this->bytes->read(0, 10));

        $read = Id3v2::isReadable($length) && $length <= $this->bytes->size() ? Id3v2::read($this->bytes->read(0, $length)) : Tags::none();

        return $read->over($this->trailing);
    }
}
