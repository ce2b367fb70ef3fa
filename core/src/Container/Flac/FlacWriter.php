<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flac;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\Flac\StreamInfo;
use Octavox\Core\Container\StretchWriter;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Tag\VorbisComment;

/** Writes FLAC with comments and cover: RFC 9639, 8. */
final class FlacWriter implements StretchWriter
{
    /** Room that a later change of the tags can use without moving the sound. */
    private const PADDING = 1024;

    private const LAST = 0x80;

    private readonly int $infoAt;

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(private readonly ByteSink $sink, AudioFormat $audio, Tags $tags)
    {
        $this->sink->needsNoChecksum();
        $this->sink->write('fLaC');
        $this->infoAt = $this->sink->position() + 4;
        $this->sink->write(self::block(0, str_pad(substr($audio->config, 0, StreamInfo::BYTES), StreamInfo::BYTES, "\0"))
            .self::metadata($audio, $tags));
    }

    /** Bytes before the sound. */
    public static function headBytes(AudioFormat $audio, Tags $tags): int
    {
        return 8 + StreamInfo::BYTES + strlen(self::metadata($audio, $tags));
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function write(Packet $packet): void
    {
        $this->sink->write($packet->data);
    }

    /**
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws Failure
     */
    public function copy(Stretch $packets): void
    {
        $this->sink->copy($packets);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function finish(int $samples, AudioFormat $audio): void
    {
        $this->sink->replace($this->infoAt, $audio->config);
    }

    private static function metadata(AudioFormat $audio, Tags $tags): string
    {
        // RFC 9639, 8.6.2: layouts that the number of channels alone does not tell
        $mask = $audio->layout->equals(StreamInfo::layout($audio->channels())) || $audio->layout->mask() === 0 ? []
            : ['WAVEFORMATEXTENSIBLE_CHANNEL_MASK' => sprintf('0x%X', $audio->layout->mask())];

        return self::block(4, VorbisComment::write($tags, 'Octavox', $mask, false))
            .($tags->cover === null ? '' : self::block(6, VorbisComment::picture($tags->cover)))
            .self::block(1 | self::LAST, str_repeat("\0", self::PADDING));
    }

    private static function block(int $type, string $body): string
    {
        return pack('N', $type << 24 | strlen($body)).$body;
    }
}
