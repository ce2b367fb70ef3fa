<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Adpcm;

use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Native\SampleFile;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** IMA and Microsoft ADPCM and GSM 6.10 blocks → sound; several blocks a packet. */
final class WaveBlockDecoder implements Decoder
{
    /** A length of data whose samples the library can count in 31 bits; what is longer is begun anew. */
    private const MOST_DATA = 0x20000000;

    private ?SampleFile $file = null;

    private int $fed = 0;

    private ?FloatBuffer $room = null;

    /** The config of the format is the `fmt ` chunk of WAV, or empty for the packets of AIFC and QuickTime. */
    public function __construct(private readonly AudioFormat $audio) {}

    /**
     * @throws BlockTooLarge
     * @throws PacketUndecodable
     */
    public function decode(Packet $packet): Block
    {
        $samples = $packet->length * $this->audio->channels();
        if ($this->room === null || $this->room->capacity < $samples) {
            $this->room = new FloatBuffer($samples);
        }
        $this->fed += strlen($packet->data);
        if ($this->file === null || $this->fed > self::MOST_DATA - (1 << 24)) {
            $this->fed = strlen($packet->data);
            try {
                $this->file = SampleFile::headed($this->head().$packet->data, $this->audio->channels());
            } catch (LibraryMissing) {
                throw PacketUndecodable::at($this->audio->codec, $packet->start, $this->audio->rate, 'its set-up is not understood');
            }
            $this->file->readGiven($samples, $this->room, 0);
        } else {
            $this->file->readFloats($packet->data, $samples, $this->room, 0);
        }

        return new Block($this->room, $packet->length, $this->audio->channels());
    }

    public function finish(): ?Block
    {
        return null;
    }

    private function head(): string
    {
        if ($this->audio->config !== '') {
            return 'RIFF'.pack('V', self::MOST_DATA + 1000).'WAVEfmt '.pack('V',
                strlen($this->audio->config)).$this->audio->config.'data'.pack('V', self::MOST_DATA);
        }
        // AIFC counts packets; 16 bits of each sample stand for what they decode to.
        $type = $this->audio->codec === Codec::AdpcmIma ? 'ima4' : 'GSM ';
        $common = pack('nNn', $this->audio->channels(), intdiv(self::MOST_DATA, 34 * $this->audio->channels()),
            16)."\x40\x0E\xBB\x80\0\0\0\0\0\0".$type."\0\0";

        return 'FORM'.pack('N', self::MOST_DATA + 1000).'AIFCFVER'.pack('N2', 4, 0xA2805140).'COMM'.pack('N',
            strlen($common)).$common.'SSND'.pack('N3', self::MOST_DATA + 8, 0, 0);
    }
}
