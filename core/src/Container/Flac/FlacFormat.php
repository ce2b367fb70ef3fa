<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flac;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Tag\Id3v2;

/** FLAC in its own file: RFC 9639. */
final class FlacFormat implements Format
{
    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        $at = self::start($bytes);

        return $bytes->size() >= $at + 42 && $bytes->read($at, 4) === 'fLaC';
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return (new FlacReader($bytes, self::start($bytes)))->read();
    }

    /**
     * Some writers put an ID3 tag before the marker.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function start(ByteSource $bytes): int
    {
        return $bytes->size() < 10 ? 0 : Id3v2::length($bytes->read(0, 10));
    }
}
