<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ape;

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
use Octavox\Core\Tag\Tags;

/** Monkey's Audio: APE_DESCRIPTOR and APE_HEADER of its format, version 3.98 and later, and the header before that. */
final class ApeFormat implements Format
{
    private const HEAD = 32;

    /** Version from which a descriptor comes before the header. */
    private const DESCRIBED = 3980;

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= self::HEAD + 44 && $bytes->read(0, 4) === 'MAC ';
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function open(ByteSource $bytes): Demuxer
    {
        $head = new Cursor($bytes->read(4, self::HEAD + 40), $bytes->name(), 4);
        $version = $head->u16le();
        [$rate, $channels, $samples] = $version >= self::DESCRIBED ? self::described($bytes, $head) : self::plain($head, $version);
        if ($rate < 1000 || $rate > 768_000 || $channels < 1 || $channels > Layout::MOST_CHANNELS) {
            throw BrokenStructure::at($bytes->name(), 0, 'its header tells of no sound');
        }
        $tag = ApeTag::before($bytes, $bytes->size());

        return NamedFile::of('ape', $bytes, new AudioFormat(Codec::Ape, $rate, Layout::undeclared($channels)), $samples,
            $tag === 0 ? Tags::none() : ApeTag::read($bytes->read($bytes->size() - $tag, $tag)));
    }

    /**
     * @return array{int, int, int} rate, channels, samples
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function described(ByteSource $bytes, Cursor $head): array
    {
        $head->skip(2);
        $at = $head->u32le();
        $header = new Cursor($bytes->read(min($at, max(0, $bytes->size() - 24)), 24), $bytes->name(), $at);
        $header->skip(4);
        [$each, $last, $frames] = [$header->u32le(), $header->u32le(), $header->u32le()];
        $header->skip(2);
        $channels = $header->u16le();

        return [$header->u32le(), $channels, max(0, $frames - 1) * $each + $last];
    }

    /**
     * @return array{int, int, int} rate, channels, samples
     *
     * @throws BytesMissing
     */
    private static function plain(Cursor $head, int $version): array
    {
        $level = $head->u16le();
        $head->skip(2);
        $channels = $head->u16le();
        $rate = $head->u32le();
        $head->skip(8);
        [$frames, $last] = [$head->u32le(), $head->u32le()];
        // Blocks of a frame: 73,728 × 4 from 3.95 on, 73,728 from 3.90 on, or from 3.80 on at the highest level, 9,216 before.
        $each = match (true) {
            $version >= 3950 => 294_912,
            $version >= 3900, $version >= 3800 && $level === 4000 => 73_728,
            default => 9216,
        };

        return [$rate, $channels, max(0, $frames - 1) * $each + $last];
    }
}
