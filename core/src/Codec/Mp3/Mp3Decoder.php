<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Mp3;

use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\Mpg123;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;

/**
 * MPEG audio frames → sound, 1152, 576 or 384 samples for each frame, the decoder's own delay included.
 *
 * A frame that cannot be decoded becomes silence of its length, so that what follows stays in its place.
 */
final class Mp3Decoder implements Mending
{
    use MendsPackets;

    private const FRAMES = 12;

    private readonly Mpg123 $library;

    private readonly FloatBuffer $room;

    private int $held = 0;

    private int $frames = 0;

    private int $expected = 0;

    private int $given = 0;

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $this->library = new Mpg123;
        $this->room = new FloatBuffer((self::FRAMES + 4) * 1152 * $audio->channels());
    }

    public function decode(Packet $packet): ?Block
    {
        if ($this->expected === 0 && ($free = FrameHeader::free($packet->data, 1)) !== null) {
            $this->library->expectFreeFormat(strlen($packet->data) - $free->bytes + 1);
        }
        $this->feed($packet->data, $packet->start);
        $this->expected += $packet->length;

        return ++$this->frames >= self::FRAMES ? $this->block() : null;
    }

    /** @throws PacketUndecodable */
    public function finish(): ?Block
    {
        if ($this->expected === $this->given && $this->held === 0) {
            return null;
        }
        $this->feed('', 0);
        $missing = ($this->expected - $this->given) * $this->audio->channels() - $this->held;
        $missing = min($missing, $this->room->capacity - $this->held);
        if ($missing > 0) {
            $this->room->silence($this->held, $missing);
            $this->held += $missing;
        }

        return $this->block();
    }

    /** @throws PacketUndecodable */
    private function feed(string $data, int $at): void
    {
        $samples = $this->library->decode($data, $this->room, $this->held);
        if ($samples > 0 && $this->given === 0 && $this->held === 0 && $this->library->channels() !== $this->audio->channels()) {
            throw PacketUndecodable::at($this->audio->codec, $at, $this->audio->rate, 'the number of channels changes');
        }
        // A frame lost inside the library is made up for with silence as soon as it shows.
        $behind = ($this->expected - $this->given) * $this->audio->channels() - $this->held - 1152 * $this->audio->channels();
        if ($samples <= 0 && $behind > 0 && $this->held + $behind <= $this->room->capacity) {
            $frames = intdiv($behind, $this->audio->channels());
            if ($this->understoodAny) {
                $this->mended[] = [max(0, $at - $frames), $frames];
            }
            $this->room->silence($this->held, $behind);
            $this->held += $behind;
        }
        $this->understoodAny = $this->understoodAny || $samples > 0;
        $this->held += max(0, $samples);
    }

    private function block(): ?Block
    {
        $frames = intdiv($this->held, $this->audio->channels());
        $this->held = 0;
        $this->frames = 0;
        $this->given += $frames;

        return $frames === 0 ? null : new Block($this->room, $frames, $this->audio->channels());
    }
}
