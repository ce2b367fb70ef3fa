<?php

declare(strict_types=1);

namespace App\Results\Values;

use App\Lists\Humanize;

/** What is being made at the moment, over all orders. */
final readonly class AtWork
{
    /**
     * @param  bool  $held  whether everything is paused
     * @param  int  $waiting  results that nobody holds back and nobody works on
     * @param  int  $paused  results that somebody holds back
     * @param  int  $room  results that wait for room on their drive
     * @param  list<int>  $orders  that are not done yet
     * @param  array<int, string>  $ended  orders that were done lately, and what came of each in a sentence
     */
    public function __construct(public OrderProgress $progress, public bool $held, public int $making, public int $waiting,
        public int $paused, public int $room, public array $orders, public array $ended) {}

    public function isAny(): bool
    {
        return $this->making + $this->waiting + $this->paused + $this->room > 0;
    }

    /** Whether somebody works, or will in a moment. */
    public function isMoving(): bool
    {
        return $this->making > 0 || $this->waiting > 0 && ! $this->held;
    }

    public function says(): string
    {
        $count = fn (int $files, string $what): string => $files === 0 ? '' : number_format($files).' '.$what;
        $left = $this->isMoving() ? Humanize::left($this->progress->secondsLeft()) : '';

        return implode(' · ', array_filter([
            $this->isMoving() ? $this->progress->percent().' %' : '', $count($this->making, 'being made'),
            $count($this->waiting, $this->held ? 'paused' : 'waiting'), $this->held ? '' : $count($this->paused, 'paused'),
            $count($this->room, 'waiting for room'), $left,
        ], fn (string $part): bool => $part !== ''));
    }
}
