<?php

declare(strict_types=1);

namespace Octavox\Core\Container\W64;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Container\Wave\FormatChunk;
use Octavox\Core\Container\Wave\SoundPart;
use Octavox\Core\Failure;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Tag\RiffInfo;
use Octavox\Core\Tag\Tags;

/** Reads the chunks of a Wave64 file: their length counts the 24 bytes of their own header, each begins at a multiple of eight. */
final class W64Reader
{
    public const RIFF = "riff\x2E\x91\xCF\x11\xA5\xD6\x28\xDB\x04\xC1\x00\x00";

    public const WAVE = "wave\xF3\xAC\xD3\x11\x8C\xD1\x00\xC0\x4F\x8E\xDB\x8A";

    private const FORMAT = "fmt \xF3\xAC\xD3\x11\x8C\xD1\x00\xC0\x4F\x8E\xDB\x8A";

    private const FACT = "fact\xF3\xAC\xD3\x11\x8C\xD1\x00\xC0\x4F\x8E\xDB\x8A";

    private const DATA = "data\xF3\xAC\xD3\x11\x8C\xD1\x00\xC0\x4F\x8E\xDB\x8A";

    private const LIST = "list\x2F\x91\xCF\x11\xA5\xD6\x28\xDB\x04\xC1\x00\x00";

    private const HEADER = 24;

    private const MOST_CHUNKS = 10_000;

    public function __construct(private readonly ByteSource $bytes) {}

    /**
     * @throws Failure
     */
    public function read(): Demuxer
    {
        $size = $this->bytes->size();
        $format = null;
        $dataAt = null;
        $dataLength = 0;
        $announced = 0;
        $tags = Tags::none();
        $diagnostics = [];
        $at = 40;
        for ($seen = 0; $at + self::HEADER <= $size && $seen < self::MOST_CHUNKS; $seen++) {
            $head = new Cursor($this->bytes->read($at, self::HEADER), $this->bytes->name(), $at);
            $name = $head->take(16);
            $length = $head->u64le() - self::HEADER;
            $at += self::HEADER;
            if ($length < 0) {
                throw BrokenStructure::at($this->bytes->name(), $at, 'a part announces less than its own header');
            }
            $there = min($length, $size - $at);
            if ($name === self::FORMAT) {
                $format = FormatChunk::parse($this->bytes->read($at, min($there, 1024)), $this->bytes->name(), $at);
            } elseif ($name === self::FACT && $there >= 8) {
                $announced = (new Cursor($this->bytes->read($at, 8), $this->bytes->name(), $at))->u64le();
            } elseif ($name === self::DATA && $dataAt === null) {
                $dataAt = $at;
                $dataLength = $there;
                if ($there < $length) {
                    $diagnostics[] = Diagnostic::cutShort($length, $there, 'bytes of sound');
                }
            } elseif ($name === self::LIST && $there >= 4 && $there < 1 << 20 && $this->bytes->read($at, 4) === 'INFO') {
                $tags = RiffInfo::read($this->bytes->read($at + 4, $there - 4));
            }
            $at += $length + (8 - $length % 8) % 8;
        }
        if ($format === null) {
            throw BrokenStructure::at($this->bytes->name(), 40, 'nothing in it says what form its samples have');
        }

        return SoundPart::open(new OpenedBytes('w64', $this->bytes, $tags, $diagnostics), $format,
            $dataAt ?? throw NoTracks::at($this->bytes->name()), $dataLength, $announced);
    }
}
