<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Dsd;

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
use Octavox\Core\Tag\Tags;

/** One-bit sound: DSF (DSF File Format Specification 1.01, "fmt chunk") and DSDIFF (DSDIFF 1.5, 3.2). */
final class DsdFormat implements Format
{
    private const MOST_CHUNKS = 100;

    private const HEAD = 80;

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        if ($bytes->size() < self::HEAD) {
            return false;
        }
        $begin = $bytes->read(0, 16);

        return str_starts_with($begin, "DSD \x1C\0\0\0") || str_starts_with($begin, 'FRM8') && substr($begin, 12) === 'DSD ';
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function open(ByteSource $bytes): Demuxer
    {
        [$rate, $channels, $samples] = $bytes->read(0, 4) === 'DSD ' ? self::plain($bytes) : self::chunks($bytes);
        if ($rate < 1_000_000 || $rate > 100_000_000 || $channels < 1 || $channels > Layout::MOST_CHANNELS) {
            throw BrokenStructure::at($bytes->name(), 0, 'its header tells of no sound');
        }

        return NamedFile::of('dsd', $bytes, new AudioFormat(Codec::Dsd, $rate, Layout::undeclared($channels)), $samples, Tags::none());
    }

    /**
     * @return array{int, int, int} rate, channels, samples
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function plain(ByteSource $bytes): array
    {
        // Behind the DSD chunk of 28 bytes, and behind name, size, version, identity and kind of channels of the next
        $head = new Cursor($bytes->read(52, 20), $bytes->name(), 52);
        [$channels, $rate] = [$head->u32le(), $head->u32le()];
        $head->skip(4);

        return [$rate, $channels, min(PHP_INT_MAX >> 16, $head->u32le() | $head->u32le() << 32)];
    }

    /**
     * @return array{int, int, int} rate, channels, samples
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function chunks(ByteSource $bytes): array
    {
        $rate = $channels = $samples = 0;
        $at = 16;
        for ($count = 0; $count < self::MOST_CHUNKS && $at + 12 <= $bytes->size(); $count++) {
            $head = new Cursor($bytes->read($at, 12), $bytes->name(), $at);
            $name = $head->take(4);
            $length = $head->u64be();
            $left = $bytes->size() - $at - 12;
            if ($name === 'FS  ' && $left >= 4) {
                $rate = (new Cursor($bytes->read($at + 12, 4), $bytes->name(), $at + 12))->u32be();
            } elseif ($name === 'CHNL' && $left >= 2) {
                $channels = (new Cursor($bytes->read($at + 12, 2), $bytes->name(), $at + 12))->u16be();
            } elseif ($name === 'DSD ') {
                $samples = intdiv(min($length, $left) * 8, max(1, $channels));
            }
            // What tells of the sound stands in a chunk of its own kind, whose parts follow at once.
            $at += $name === 'PROP' ? 16 : 12 + min($length + ($length & 1), $left);
        }

        return [$rate, $channels, $samples];
    }
}
