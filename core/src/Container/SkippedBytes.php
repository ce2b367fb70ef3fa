<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Media\Diagnostic;

/** Counts the frames of a stream that is walked, and the bytes between them that belong to none. */
final class SkippedBytes
{
    /** So little can be a tag that nobody knows, or padding. */
    private const UNSUSPICIOUS = 1024;

    private int $skipped = 0;

    private ?int $first = null;

    private int $frames = 0;

    private int $coded = 0;

    /** @param  int  $at  where the first frame is expected */
    public function __construct(private int $at) {}

    public function frame(int $at, int $bytes): void
    {
        $this->upTo($at);
        $this->at = $at + $bytes;
        $this->coded += $bytes;
        $this->frames++;
    }

    public function frames(): int
    {
        return $this->frames;
    }

    /** @return list<Diagnostic> */
    public function diagnostics(int $end): array
    {
        $this->upTo($end);
        $usual = intdiv($this->coded, max(1, $this->frames));

        return $this->first !== null && $this->skipped > max(self::UNSUSPICIOUS, 2 * $usual)
            ? [Diagnostic::otherContent($this->skipped, $this->first)] : [];
    }

    private function upTo(int $at): void
    {
        if ($at > $this->at) {
            $this->first ??= $this->at;
            $this->skipped += $at - $this->at;
            $this->at = $at;
        }
    }
}
