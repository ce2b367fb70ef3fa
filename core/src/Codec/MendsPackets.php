<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;

/** What decoders share that put silence where a packet is damaged; too many in a row are no damage but another kind of sound. */
trait MendsPackets
{
    /** @var list<array{int, int}> */
    private array $mended = [];

    private int $damagedInARow = 0;

    private bool $understoodAny = false;

    public function takeMended(): array
    {
        $mended = $this->mended;
        $this->mended = [];

        return $mended;
    }

    private function understood(): void
    {
        $this->damagedInARow = 0;
        $this->understoodAny = true;
    }

    /**
     * Notes a damaged packet.
     *
     * @throws PacketUndecodable where it is one too many: 50 in a row, or the first five
     */
    private function mend(Codec $codec, Packet $packet, int $rate, string $complaint): void
    {
        if (++$this->damagedInARow >= 50 || ! $this->understoodAny && $this->damagedInARow > 4) {
            throw PacketUndecodable::at($codec, $packet->start, $rate, $complaint);
        }
        $this->mended[] = [$packet->start, $packet->length];
    }
}
