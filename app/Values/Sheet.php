<?php

declare(strict_types=1);

namespace App\Values;

/** An order sheet: what was filled in, and what would come of it. */
final readonly class Sheet
{
    /**
     * @param  list<PlannedDelivery>  $planned
     * @param  int  $count  of results that can be made
     * @param  int  $bytes  of all results together, predicted
     * @param  int  $soundBytes  of the sound that goes in
     * @param  float  $seconds  length of all results together
     * @param  ?float  $takes  seconds of work at the speed measured lately
     */
    public function __construct(public OrderForm $form, public array $planned, public int $count, public int $bytes, public int $soundBytes, public float $seconds, public ?float $takes)
    {
    }

    /** @return array<string, string> the page's address without one source */
    public function without(int $source): array
    {
        return ['sources' => implode(',', array_diff($this->form->sources, [$source]))] + $this->form->query();
    }

    /** Beneath the choice of rate: what leaving it to the source means. */
    public function rateNote(): string
    {
        return $this->form->rate === null ? 'each source keeps the rate it was recorded at' : Say::rate($this->form->rate).' for all';
    }

    public function formatNote(): string
    {
        return $this->form->format === 'wav' ? 'uncompressed, exact, large; for cutting' : 'compressed, small; for listening and sending';
    }

    public function bitsNote(): string
    {
        return $this->form->bits === null ? 'as the source has it; 16 bits where it is compressed' : match ($this->form->bits) {
            8 => '8 bits, 48 dB; for telephone systems',
            16 => '16 bits, 96 dB; what nearly everything takes',
            24 => '24 bits, 144 dB; for cutting and mixing',
            default => '32 bits, whole numbers',
        };
    }

    public function layoutNote(): string
    {
        return match ($this->form->layout) {
            'mono' => 'all channels together in one',
            'stereo' => 'two channels; a single one on both sides',
            default => 'as many as the source has',
        };
    }
}
