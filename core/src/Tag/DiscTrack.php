<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** What an audio disc says of a track beyond where it begins: IEC 60908 and what sheets hold of it. */
final readonly class DiscTrack
{
    /**
     * @param  int  $number  as the disc counts; 0 for what is hidden before the first
     * @param  string  $title  empty where it has none
     * @param  string  $performer  empty where it is that of the disc
     * @param  string  $isrc  ISO 3901; empty where none is told
     * @param  ?float  $ends  seconds at which its music ends and the gap before the next track begins; null where there is no gap
     * @param  bool  $isEmphasised  whether its treble was raised by the curve of 50 and 15 microseconds
     */
    public function __construct(public int $number, public string $title, public string $performer, public string $isrc,
        public ?float $ends = null, public bool $isEmphasised = false) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['number' => $this->number, 'title' => $this->title, 'performer' => $this->performer, 'isrc' => $this->isrc,
            'ends' => $this->ends === null ? null : round($this->ends, 6), 'pre_emphasis' => $this->isEmphasised];
    }

    /** @param  array<array-key, mixed>  $facts  what {@see self::toArray()} gave */
    public static function fromArray(array $facts): self
    {
        $text = fn (string $name): string => is_string($facts[$name] ?? null) ? $facts[$name] : '';
        $ends = $facts['ends'] ?? null;

        return new self(is_int($facts['number'] ?? null) ? $facts['number'] : 0, $text('title'), $text('performer'), $text('isrc'),
            is_int($ends) || is_float($ends) ? (float) $ends : null, ($facts['pre_emphasis'] ?? false) === true);
    }
}
