<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

use Octavox\Core\Codec\FrameParser;

/** Cuts the bytes of an elementary stream into frames; a time belongs to the first frame that begins in its packet. */
final class FrameCutter
{
    private string $held = '';

    /** @var list<array{int, int}> place within what is held, and time */
    private array $times = [];

    private ?string $identity = null;

    public function __construct(private readonly FrameParser $framing) {}

    /** @return iterable<array{string, ?int, int}> payload, time in ticks of 90 kHz where it is stated, samples */
    public function feed(Pes $packet): iterable
    {
        if ($packet->pts !== null) {
            $this->times[] = [strlen($this->held), $packet->pts];
        }
        $this->held .= $packet->data;
        $at = 0;
        $head = $this->framing->headBytes();
        $end = strlen($this->held);
        while ($at + $head <= $end) {
            $facts = $this->framing->at(substr($this->held, $at, $head));
            if ($facts === null || $this->identity !== null && $facts->identity !== $this->identity
                && ! $this->follows($at + $facts->bytes, $facts->identity)) {
                $next = strpos($this->held, $this->framing->firstByte(), $at + 1);
                $at = $next === false ? $end : $next;

                continue;
            }
            if ($at + $facts->bytes > $end) {
                break;
            }
            // A first frame is believed when another follows it.
            if ($this->identity === null && ! $this->follows($at + $facts->bytes, $facts->identity)) {
                if ($at + $facts->bytes + $head > $end) {
                    break;
                }
                $at++;

                continue;
            }
            $this->identity = $facts->identity;
            yield [$this->framing->payload(substr($this->held, $at, $facts->bytes)), $this->time($at), $facts->samples];
            $at += $facts->bytes;
        }
        $this->drop($at);
    }

    /** @return iterable<array{string, ?int, int}> what was still held and is whole */
    public function finish(): iterable
    {
        $facts = $this->framing->at(substr($this->held, 0, $this->framing->headBytes()));
        if ($facts !== null && $facts->bytes <= strlen($this->held)) {
            yield [$this->framing->payload(substr($this->held, 0, $facts->bytes)), $this->time(0), $facts->samples];
        }
        $this->held = '';
    }

    /** The whole first frame of what is held, header and all; empty where there is none. */
    public function first(): string
    {
        return $this->held;
    }

    private function follows(int $at, string $identity): bool
    {
        return $this->framing->at(substr($this->held, $at, $this->framing->headBytes()))?->identity === $identity;
    }

    private function time(int $at): ?int
    {
        $time = null;
        while ($this->times !== [] && $this->times[0][0] <= $at) {
            $time = array_shift($this->times)[1];
        }

        return $time;
    }

    private function drop(int $bytes): void
    {
        $this->held = substr($this->held, $bytes);
        $this->times = array_values(array_map(fn (array $time): array => [max(0, $time[0] - $bytes), $time[1]], $this->times));
    }
}
