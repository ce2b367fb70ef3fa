<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Musepack;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\NamedFile;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\ApeTag;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\Tags;

/** Musepack: the header of stream version 7, and the stream header packet of version 8 (SV8 Specification, "Stream Header Packet"). */
final class MusepackFormat implements Format
{
    private const RATES = [44_100, 48_000, 37_800, 32_000];

    /** Samples of a frame of version 7. */
    private const FRAME = 1152;

    private const HEAD = 64;

    private const SEVEN = 7;

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        $at = self::start($bytes);
        $begin = $bytes->size() >= $at + 32 ? $bytes->read($at, 4) : '';

        return $begin === 'MPCK' || str_starts_with($begin, 'MP+') && (ord($begin[3]) & 15) === self::SEVEN;
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function open(ByteSource $bytes): Demuxer
    {
        $at = self::start($bytes);
        $head = new Cursor($bytes->read($at, min(self::HEAD, $bytes->size() - $at)), $bytes->name(), $at);
        $isNew = $head->take(4) === 'MPCK';
        [$rate, $channels, $samples] = $isNew ? self::eight($head, $bytes->name()) : self::seven($head);
        $tag = ApeTag::before($bytes, $bytes->size());

        return NamedFile::of('musepack', $bytes,
            new AudioFormat(Codec::Musepack, self::RATES[$rate], Layout::undeclared($channels)), $samples,
            ($tag === 0 ? Tags::none() : ApeTag::read($bytes->read($bytes->size() - $tag, $tag)))->over(Id3v2::ofFile($bytes)));
    }

    /**
     * Some programs put an ID3 tag before it.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function start(ByteSource $bytes): int
    {
        return $bytes->size() < 10 ? 0 : Id3v2::length($bytes->read(0, 10));
    }

    /**
     * @return array{int<0, 3>, int, int} index of the rate, channels, samples
     *
     * @throws BytesMissing
     */
    private static function seven(Cursor $head): array
    {
        $frames = $head->u32le();
        $flags = $head->u32le();

        return [($flags >> 16) & 3, 2, $frames * self::FRAME];
    }

    /**
     * @return array{int<0, 3>, int, int} index of the rate, channels, samples
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     */
    private static function eight(Cursor $head, string $name): array
    {
        if ($head->take(2) !== 'SH') {
            throw BrokenStructure::at($name, 4, 'its header tells of no sound');
        }
        self::number($head);
        $head->skip(5);
        $samples = self::number($head);
        $silence = self::number($head);
        $flags = $head->u16be();

        return [($flags >> 13) & 3, (($flags >> 4) & 15) + 1, max(0, $samples - $silence)];
    }

    /**
     * Seven bits a byte, the highest bit set in all but the last.
     *
     * @throws BytesMissing
     */
    private static function number(Cursor $head): int
    {
        $number = 0;
        for ($bytes = 0; $bytes < 8; $bytes++) {
            $byte = ord($head->take(1));
            $number = $number << 7 | $byte & 0x7F;
            if ($byte < 0x80) {
                break;
            }
        }

        return $number;
    }
}
