<?php

declare(strict_types=1);

namespace App\Results\Values;

use App\Lists\Humanize;

/** How far all results of an order are together. */
final readonly class OrderProgress
{
    private function __construct(public int $files, public int $done, public int $failed, public int $open, public float $seconds,
        public float $made, public float $speed, public int $copies = 0, public string $copiesFolder = '') {}

    /**
     * @param  array<array-key, \stdClass>  $rows  counted by state
     * @param  ?\stdClass  $copies  how many safe copies of its sources there are, and the path of one
     */
    public static function of(array $rows, ?\stdClass $copies = null): self
    {
        $files = $done = $failed = $open = 0;
        $seconds = $made = $speed = 0.0;
        foreach ($rows as $row) {
            $state = ResultState::from((string) $row->state);
            $files += (int) $row->files;
            $done += $state === ResultState::Done || $state === ResultState::Skipped ? (int) $row->files : 0;
            $failed += $state === ResultState::Failed ? (int) $row->files : 0;
            $open += $state->isOpen() ? (int) $row->files : 0;
            $seconds += (float) $row->seconds;
            $made += $state->isOpen() ? (float) $row->made : (float) $row->seconds;
            $speed += (float) $row->speed;
        }

        return new self($files, $done, $failed, $open, $seconds, $made, $speed, (int) ($copies->files ?? 0),
            $copies === null ? '' : dirname((string) $copies->path));
    }

    /** 0 to 100 by the length of the sound. */
    public function percent(): int
    {
        return $this->open === 0 ? 100 : (int) min(99, floor(100 * $this->made / max(0.001, $this->seconds)));
    }

    /** Seconds left at the speed of the moment; null where nothing is being made. */
    public function secondsLeft(): ?float
    {
        return $this->speed > 0 ? max(0.0, $this->seconds - $this->made) / $this->speed : null;
    }

    public function says(): string
    {
        $left = $this->open > 0 ? Humanize::left($this->secondsLeft()) : '';

        return implode(' · ', array_filter([number_format($this->done).' of '.number_format($this->files).' done',
            $this->failed > 0 ? number_format($this->failed).' failed' : '', $left], fn (string $one): bool => $one !== ''));
    }
}
