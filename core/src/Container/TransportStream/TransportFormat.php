<?php

declare(strict_types=1);

namespace Octavox\Core\Container\TransportStream;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\Mpeg\ElementaryReader;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Tag\Id3v2;

/**
 * MPEG transport streams: ISO/IEC 13818-1, 2.4.3; with four bytes of time before each packet (disc camcorders) or sixteen of correction
 * after it.
 */
final class TransportFormat implements Format
{
    /** What the reader calls files of it that can hold pictures to be copied. */
    public const WITH_PICTURES = ['mpeg-ts'];

    private const SYNC = "\x47";

    /** Packets that must begin in step. */
    private const IN_STEP = 5;

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return self::shape($bytes) !== null;
    }

    /**
     * @throws NoTracks
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function open(ByteSource $bytes): Demuxer
    {
        [$at, $step] = self::shape($bytes) ?? throw NoTracks::at($bytes->name());
        $packets = new TransportPackets($bytes, $at, $step);
        $tracks = (new ProgramTables($bytes, $at, $step))->read();
        if ($tracks === []) {
            throw NoTracks::at($bytes->name());
        }
        $packets->carry($tracks);

        return (new ElementaryReader('mpeg-ts', $packets, $tracks))->read();
    }

    /**
     * @return ?array{int, int} where the first packet's sync byte stands, and bytes from one to the next
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function shape(ByteSource $bytes): ?array
    {
        if (Id3v2::end($bytes) > 0) {
            // A tag stands before sound, and its picture can hold anything.
            return null;
        }
        $head = $bytes->read(0, min(4096, $bytes->size()));
        foreach ([188, 192, 204] as $step) {
            for ($at = 0; $at < $step && $at + $step * (self::IN_STEP - 1) < strlen($head); $at++) {
                if ($head[$at] !== self::SYNC) {
                    continue;
                }
                $steps = 0;
                while ($steps < self::IN_STEP && ($head[$at + $steps * $step] ?? '') === self::SYNC) {
                    $steps++;
                }
                if ($steps === self::IN_STEP) {
                    return [$at, $step];
                }
            }
        }

        return null;
    }
}
