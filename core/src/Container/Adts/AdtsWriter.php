<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Adts;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\RunWriter;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\PacketRun;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\Tags;

/** Writes access units, each after its header. */
final class AdtsWriter implements RunWriter
{
    /** @var array<int, string> headers by the bytes of the unit that follows */
    private array $headers = [];

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(private readonly ByteSink $sink, private readonly AudioFormat $audio, Tags $tags)
    {
        $this->sink->write(Id3v2::write($tags));
    }

    /**
     * @throws Failure
     */
    public function write(Packet $packet): void
    {
        $bytes = strlen($packet->data);
        $this->sink->write(($this->headers[$bytes] ??= $this->header($bytes, $packet->start)).$packet->data);
    }

    /**
     * @throws Failure
     */
    public function writeRun(PacketRun $run): void
    {
        $units = $run->data->bytes();
        $written = '';
        $at = 0;
        foreach (unpack('N*', $run->sizes) ?: [] as $bytes) {
            $written .= ($this->headers[$bytes] ??= $this->header($bytes, $run->start)).substr($units, $at, $bytes);
            $at += $bytes;
        }
        $this->sink->write($written);
    }

    public function finish(int $samples, AudioFormat $audio): void {}

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     */
    private function header(int $bytes, int $start): string
    {
        return AdtsFrameParser::header($this->audio->config, $bytes)
            ?? throw BrokenStructure::at('ADTS', $start, 'an access unit is too long for its header');
    }
}
