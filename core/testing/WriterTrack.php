<?php

declare(strict_types=1);

namespace Octavox\Core\Testing;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;

/** One track to be written: its packets, its description, and what of it is presented. Times are ticks of its own timescale. */
final readonly class WriterTrack
{
    /**
     * @param  list<string>  $packets
     * @param  int  $sampleBytes  bytes of one sample where packets hold many of one size (PCM), else 0
     * @param  ?list<int>  $keyPackets  packets that can be begun with; null where all can
     * @param  int  $lateTicks  ticks of the movie before the track begins
     */
    private function __construct(
        public array $packets,
        public string $entry,
        public int $timescale,
        public int $ticksPerPacket,
        public int $mediaTicks,
        public int $mediaTime,
        public int $presentedTicks,
        public int $sampleBytes,
        public ?array $keyPackets,
        public int $width,
        public int $height,
        public string $language,
        public int $lateTicks,
    ) {}

    /**
     * @param  list<Packet>  $packets
     * @param  int  $delay  samples to be left out at the start
     * @param  int  $samples  to be presented
     */
    public static function sound(AudioFormat $audio, array $packets, int $delay, int $samples, string $language = 'und',
        int $lateTicks = 0): self
    {
        $length = array_sum(array_map(fn (Packet $packet): int => $packet->length, $packets));

        return new self(
            array_map(fn (Packet $packet): string => $packet->data, $packets),
            self::soundEntry($audio), $audio->rate, $packets === [] ? 1 : max(1, $packets[0]->length), $length, $delay, $samples,
            $audio->frameBytes(), null, 0, 0, $language, $lateTicks,
        );
    }

    /**
     * @param  list<string>  $pictures  H.264 access units with four bytes of length before each part
     * @param  list<int>  $keys
     * @param  string  $configuration  AVCDecoderConfigurationRecord (ISO/IEC 14496-15, 5.2.4.1)
     */
    public static function h264(array $pictures, array $keys, string $configuration, int $width, int $height,
        int $timescale, int $ticks): self
    {
        $entry = str_repeat("\0", 6).pack('n', 1).str_repeat("\0", 16).pack('n2N2Nn', $width, $height, 0x480000, 0x480000, 0,
            1).str_repeat("\0", 32).pack('n2', 24, 0xFFFF).self::box('avcC', $configuration);

        return new self($pictures, self::box('avc1', $entry), $timescale, $ticks, count($pictures) * $ticks, 0, count($pictures) * $ticks,
            0, $keys, $width, $height, 'und', 0);
    }

    public function isSound(): bool
    {
        return $this->width === 0;
    }

    /** @return list<int> samples, in the container's sense, of each packet */
    public function framesPerPacket(): array
    {
        return array_map(fn (string $packet): int => $this->sampleBytes > 0 ? intdiv(strlen($packet), $this->sampleBytes)
            : 1, $this->packets);
    }

    private static function soundEntry(AudioFormat $audio): string
    {
        $common = str_repeat("\0", 6).pack('n', 1).str_repeat("\0", 8).pack('n2', $audio->channels(), $audio->bits() ?: 16).pack('nnN', 0,
            0, min(65535, $audio->rate) << 16);

        return match (true) {
            $audio->codec === Codec::Aac => self::box('mp4a',
                $common.self::box('esds',
                    "\0\0\0\0".self::descriptor(3,
                        "\0\1\0".self::descriptor(4, chr(0x40).chr(0x15)."\0\0\0".pack('N2', 256000, 128000).self::descriptor(5,
                            $audio->config))
                        .self::descriptor(6, "\2")))),
            $audio->pcm !== null && $audio->pcm->bits === 16 => self::box($audio->pcm->bigEndian ? 'twos' : 'sowt', $common),
            $audio->pcm !== null && $audio->pcm->bits === 24 => self::box('in24',
                $common.($audio->pcm->bigEndian ? ''
                : self::box('wave', self::box('frma', 'in24').self::box('enda', "\0\1")."\0\0\0\x08\0\0\0\0"))),
            default => throw CodecNotDecodable::named(CodecModules::describe($audio)),
        };
    }

    /** ISO/IEC 14496-1, 7.2.6; the length in four bytes as most writers do. */
    private static function descriptor(int $tag, string $body): string
    {
        $length = strlen($body);

        return chr($tag).chr(0x80 | $length >> 21 & 0x7F).chr(0x80 | $length >> 14 & 0x7F).chr(0x80 | $length >> 7 & 0x7F)
            .chr($length & 0x7F).$body;
    }

    private static function box(string $type, string $body): string
    {
        return pack('N', 8 + strlen($body)).$type.$body;
    }
}
