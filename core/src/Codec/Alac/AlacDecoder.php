<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Alac;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\SampleFile;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/** ALAC packets → sound, bit for bit; packets are gathered into a small CAF file that the sample library decodes at once. */
final class AlacDecoder implements Mending
{
    use MendsPackets;

    private const TOGETHER = 16;

    private readonly MagicCookie $cookie;

    private readonly FloatBuffer $room;

    /** @var list<Packet> */
    private array $held = [];

    /**
     * @throws CodecNotDecodable
     * @throws BlockTooLarge
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $this->cookie = MagicCookie::parse($audio->config) ?? throw CodecNotDecodable::of($audio);
        $this->room = new FloatBuffer(self::TOGETHER * $this->cookie->frames * $this->cookie->channels);
    }

    /**
     * @throws BytesMissing
     * @throws PacketUndecodable
     */
    public function decode(Packet $packet): ?Block
    {
        $this->held[] = $packet;

        return count($this->held) >= self::TOGETHER ? $this->finish() : null;
    }

    /**
     * @throws PacketUndecodable
     * @throws BytesMissing
     */
    public function finish(): ?Block
    {
        if ($this->held === []) {
            return null;
        }
        $frames = min(count($this->held) * $this->cookie->frames,
            array_sum(array_map(fn (Packet $packet): int => $packet->length, $this->held)));
        $first = $this->held[0];
        $data = array_map(fn (Packet $packet): string => $packet->data, $this->held);
        $this->held = [];
        try {
            $file = SampleFile::headed(AlacFile::write($this->cookie, $data, $frames), $this->cookie->channels);
            $given = intdiv($file->readGiven($frames * $this->cookie->channels, $this->room, 0), $this->cookie->channels);
        } catch (LibraryMissing) {
            $given = 0;
        }
        // Only the last packet of a track may be short.
        if ($given <= $frames - $this->cookie->frames) {
            // The library stops at the packet that it does not understand: what it held goes silent up to the end of the group.
            $this->mend(Codec::Alac, new Packet('', $first->start + $given, $frames - $given), $this->audio->rate,
                'its packets are not understood');
            $this->room->silence($given * $this->cookie->channels, ($frames - $given) * $this->cookie->channels);
            $given = $frames;
        } else {
            $this->understood();
        }

        if ($this->cookie->bits === 24 && $this->cookie->channels > 1) {
            foreach ($data as $index => $packet) {
                if (EscapedPacket::is($packet)) {
                    EscapedPacket::read($packet, $this->cookie->channels, $this->room, $index * $this->cookie->frames);
                }
            }
        }

        return new Block($this->room, $given, $this->cookie->channels);
    }
}
