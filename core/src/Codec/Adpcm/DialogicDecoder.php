<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Adpcm;

use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Native\SampleFile;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** 4-bit telephone ADPCM (Dialogic ADPCM, 1988; also called OKI), two samples a byte, mono → sound. */
final class DialogicDecoder implements Decoder
{
    /** SF_FORMAT_VOX_ADPCM */
    public const KIND = 0x0021;

    private readonly SampleFile $file;

    private ?FloatBuffer $room = null;

    /** @throws LibraryMissing */
    public function __construct()
    {
        $this->file = SampleFile::reader(self::KIND, 1);
    }

    /** @throws BlockTooLarge */
    public function decode(Packet $packet): Block
    {
        $samples = 2 * strlen($packet->data);
        if ($this->room === null || $this->room->capacity < $samples) {
            $this->room = new FloatBuffer($samples);
        }
        $this->file->readFloats($packet->data, $samples, $this->room, 0);

        return new Block($this->room, $samples, 1);
    }

    public function finish(): ?Block
    {
        return null;
    }
}
