<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Tta;

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

/** True Audio: the TTA1 header, behind ID3v2 or before an APE tag. */
final class TtaFormat implements Format
{
    private const HEAD = 22;

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        $at = min($bytes->size(), Id3v2::end($bytes));

        return $bytes->size() >= $at + self::HEAD && $bytes->read($at, 4) === 'TTA1';
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function open(ByteSource $bytes): Demuxer
    {
        $at = Id3v2::end($bytes);
        $head = new Cursor($bytes->read($at + 6, self::HEAD - 6), $bytes->name(), $at + 6);
        $channels = $head->u16le();
        $head->skip(2);
        [$rate, $samples] = [$head->u32le(), $head->u32le()];
        if ($rate < 1000 || $rate > 768_000 || $channels < 1 || $channels > Layout::MOST_CHANNELS) {
            throw BrokenStructure::at($bytes->name(), $at, 'its header tells of no sound');
        }
        $tag = ApeTag::before($bytes, $bytes->size());
        $tags = $tag === 0 ? Id3v2::ofFile($bytes) : ApeTag::read($bytes->read($bytes->size() - $tag, $tag));

        return NamedFile::of('tta', $bytes, new AudioFormat(Codec::Tta, $rate, Layout::undeclared($channels)), $samples, $tags);
    }
}
