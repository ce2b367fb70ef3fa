<?php

declare(strict_types=1);

namespace Octavox\Core\Container\TransportStream;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Mpeg\ElementaryTrack;
use Octavox\Core\Container\Mpeg\Pes;
use Octavox\Core\Container\Mpeg\PesSource;

/** Puts the packets of elementary streams together from transport packets: ISO/IEC 13818-1, 2.4.3.2. */
final class TransportPackets implements PesSource
{
    private const PACKET = 188;

    /** Transport packets read at once. */
    private const TOGETHER = 2048;

    /** A packet of sound is given in pieces when it grows longer. */
    private const MOST_HELD = 4 * 1024 * 1024;

    private const MOST_PICTURE = 64 * 1024 * 1024;

    /** Pictures are only looked at for their times and first bytes. */
    private const PICTURE_BYTES = 4096;

    /** @var array<int, bool> whether it is sound, by the identity of the stream */
    private array $wanted = [];

    /** @param  int  $base  where the first sync byte stands */
    public function __construct(private readonly ByteSource $bytes, private readonly int $base, private readonly int $step) {}

    /** @param  list<ElementaryTrack>  $tracks */
    public function carry(array $tracks): void
    {
        foreach ($tracks as $track) {
            $this->wanted[$track->id] = $track->sound;
        }
    }

    public function bytes(): ByteSource
    {
        return $this->bytes;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(int $from, int $until, ?int $track = null): iterable
    {
        $at = $this->base + max(0, intdiv(max(0, $from - $this->base), $this->step)) * $this->step;
        $until = min($until, $this->bytes->size());
        /** @var array<int, array{string, int}> $held bytes and place of the packet that is being put together */
        $held = [];
        /** @var array<int, string> $before the last packet of each stream */
        $before = [];
        while ($at + self::PACKET <= $until) {
            $count = min(self::TOGETHER, intdiv($until - $at - self::PACKET, $this->step) + 1);
            $bytes = $this->bytes->read($at, ($count - 1) * $this->step + self::PACKET);
            for ($index = 0, $place = 0; $index < $count; $index++, $place += $this->step) {
                if ($bytes[$place] !== "\x47") {
                    $at = $this->resync($at + $place + 1, $until);

                    continue 2;
                }
                $second = ord($bytes[$place + 1]);
                $pid = ($second & 0x1F) << 8 | ord($bytes[$place + 2]);
                if (! isset($this->wanted[$pid]) || $track !== null && $pid !== $track) {
                    continue;
                }
                $control = ord($bytes[$place + 3]);
                $skip = ($control & 0x20) !== 0 ? 5 + ord($bytes[$place + 4]) : 4;
                if (($control & 0x10) === 0 || $skip >= self::PACKET || ($control & 0xC0) !== 0) {
                    continue;
                }
                $whole = substr($bytes, $place, self::PACKET);
                if ($whole === ($before[$pid] ?? '')) {
                    // A packet may be sent twice: ISO/IEC 13818-1, 2.4.3.3, continuity_counter.
                    continue;
                }
                $before[$pid] = $whole;
                if (($second & 0x40) !== 0) {
                    if (isset($held[$pid])) {
                        yield from $this->whole($pid, $held[$pid]);
                    }
                    $held[$pid] = [substr($bytes, $place + $skip, self::PACKET - $skip), $at + $place];
                } elseif (isset($held[$pid]) && ($this->wanted[$pid] || $track !== null || strlen($held[$pid][0]) < self::PICTURE_BYTES)
                    && strlen($held[$pid][0]) < ($this->wanted[$pid] ? self::MOST_HELD : self::MOST_PICTURE)) {
                    $held[$pid][0] .= substr($bytes, $place + $skip, self::PACKET - $skip);
                }
            }
            $at += $count * $this->step;
        }
        foreach ($held as $pid => $one) {
            yield from $this->whole($pid, $one);
        }
    }

    /**
     * Transport packet by transport packet; of a packet of the stream only the length of its head counts.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function payload(int $track): iterable
    {
        $size = $this->bytes->size();
        $before = '';
        for ($at = $this->base; $at + self::PACKET <= $size; $at += $this->step) {
            $packet = $this->bytes->read($at, self::PACKET);
            if ($packet[0] !== "\x47") {
                $at = $this->resync($at + 1, $size) - $this->step;

                continue;
            }
            $control = ord($packet[3]);
            if (((ord($packet[1]) & 0x1F) << 8 | ord($packet[2])) !== $track || ($control & 0xD0) !== 0x10 || $packet === $before) {
                continue;
            }
            $before = $packet;
            $bytes = substr($packet, ($control & 0x20) !== 0 ? 5 + ord($packet[4]) : 4);
            yield (ord($packet[1]) & 0x40) !== 0 && str_starts_with($bytes, "\0\0\1") ? substr($bytes, 9 + ord($bytes[8] ?? "\0")) : $bytes;
        }
    }

    /**
     * @param  array{string, int}  $held
     * @return iterable<Pes>
     */
    private function whole(int $pid, array $held): iterable
    {
        [$bytes, $at] = $held;
        $header = Pes::header($bytes);
        if ($header !== null) {
            $length = ord($bytes[4]) << 8 | ord($bytes[5]);
            yield new Pes($pid, $length > 0 && 6 + $length > $header[0] ? substr($bytes, $header[0], 6 + $length - $header[0])
                : substr($bytes, $header[0]), $header[1], $header[2], $at);
        }
    }

    /**
     * The next place where packets are in step again.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function resync(int $at, int $until): int
    {
        while ($at + 2 * $this->step < $until) {
            $bytes = $this->bytes->read($at, min(65_536, $until - $at));
            for ($place = strpos($bytes, "\x47"); $place !== false; $place = strpos($bytes, "\x47", $place + 1)) {
                if (($bytes[$place + $this->step] ?? '') === "\x47" && ($bytes[$place + 2 * $this->step] ?? '') === "\x47") {
                    return $at + $place;
                }
            }
            $at += max(1, strlen($bytes) - 2 * $this->step);
        }

        return $until;
    }
}
