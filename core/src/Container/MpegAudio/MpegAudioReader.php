<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegAudio;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\Mp3\Mp3Facts;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Container\SkippedBytes;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\ApeTag;
use Octavox\Core\Tag\Id3v1;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\Tags;

/** Reads tags and the info header; without one, every frame is counted, so that the length is exact. */
final class MpegAudioReader
{
    /** Up to here the frames of a file are counted whatever its header says; in time about a tenth of a second. */
    private const COUNTED_BYTES = 67_108_864;

    /** Frames that may stand behind those that were announced without being a recording of their own. */
    private const STRAY_FRAMES = 8;

    private Tags $trailing;

    public function __construct(private readonly ByteSource $bytes, private readonly int $start)
    {
        $this->trailing = Tags::none();
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function read(): Demuxer
    {
        $head = $this->bytes->read($this->start, min(4096, $this->bytes->size() - $this->start));
        $free = FrameHeader::parse($head) === null ? FreeFormat::frameBytes($this->bytes, $this->start) : 0;
        $header = FrameHeader::parse($head) ?? FrameHeader::free($head, $free)
            ?? throw BrokenStructure::at($this->bytes->name(), $this->start, 'its first frame cannot be read');
        $info = InfoHeader::parse(substr($head, 0, $header->bytes)) ?? InfoHeader::parseOther(substr($head, 0, $header->bytes));
        $from = $info === null ? $this->start : $this->start + $header->bytes;
        // A stream of free format has an info frame with a stated bit rate before it.
        $free = $info === null ? $free : FreeFormat::frameBytes($this->bytes, $from);
        $header = $free === 0 ? $header : FrameHeader::free($this->bytes->read($from, 4), $free) ?? $header;
        $end = $this->end();
        [$frames, $variable, $diagnostics] = $info !== null && $this->isTrusted($info, $end)
            ? [$info->frames, $info->variable, []]
            : $this->count($from, $end, $free);
        $length = $frames * $header->samples;
        [$skip, $samples] = self::presented($info, $frames, $header->samples);
        $variant = match (true) {
            $free > 0 => CodecModules::of($header->codec())->label().', free format',
            $header->codec() === Codec::Mp3 && $variable => 'MP3, variable rate',
            default => '',
        };
        $audio = new AudioFormat($header->codec(), $header->rate, $header->channels === 1 ? Layout::mono() : Layout::stereo(), null, '',
            $header->samples, $variant);

        $track = Track::sound(1, $audio, Timeline::plain($samples, $skip, $length), max(0, $end - $from));

        return new MpegAudioFile(new OpenedBytes($header->codec()->value, $this->bytes, $this->tags(), $diagnostics), $track, $from, $end,
            $header, $free, $info->maker ?? '');
    }

    /** Whether what a header announces is what is there; only of long files, whose frames take a while to count. */
    private function isTrusted(InfoHeader $info, int $end): bool
    {
        $there = $end - $this->start;

        return $there > self::COUNTED_BYTES && $info->frames > 0 && abs($info->bytes - $there) <= 4096
            && $info->frames <= intdiv($there, 24);
    }

    /**
     * What is presented of the frames: without a stated delay all of them, the decoder's own delay included; with one, what lies between
     * delay and padding, as far as there are frames. A padding that is announced for frames that are not there leaves nothing out.
     *
     * @return array{int, int} first sample and number of samples
     */
    private static function presented(?InfoHeader $info, int $frames, int $each): array
    {
        $length = $frames * $each;
        if ($info === null || $info->delay === null) {
            return [0, $length];
        }
        $skip = $info->delay + Mp3Facts::DECODER_DELAY;
        // Far more than was announced is sound that the header does not know of.
        $isOther = $info->frames === 0 || $frames - $info->frames > max(self::STRAY_FRAMES, intdiv($info->frames, 20));
        $until = $isOther ? $length : min($length, $info->frames * $each - (int) $info->padding + Mp3Facts::DECODER_DELAY);

        return [$skip, max(0, $until - $skip)];
    }

    /**
     * Without the tags at the end: an APE tag, then the 128 bytes of ID3v1.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
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
        $ape = ApeTag::before($this->bytes, $end, $this->start);
        if ($ape > 0) {
            $read = ApeTag::read($this->bytes->read($end - $ape, $ape));
            $this->trailing = $read->over($this->trailing);
            $end -= $ape;
        }

        return $end;
    }

    /**
     * @return array{int, bool, list<Diagnostic>} number of frames, whether their bit rates differ, and what stands between them
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function count(int $from, int $end, int $free): array
    {
        $gaps = new SkippedBytes($from);
        $rates = [];
        $size = $this->bytes->size();
        foreach (FrameWalk::over(new Window($this->bytes, $size), $from, $end, $free, $size) as [$at, $header]) {
            $gaps->frame($at, $header->bytes);
            $rates[$header->kbps] = true;
        }

        return [$gaps->frames(), count($rates) > 1, $gaps->diagnostics($end)];
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function tags(): Tags
    {
        return Id3v2::ofFile($this->bytes)->over($this->trailing);
    }
}
