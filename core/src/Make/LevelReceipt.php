<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Json\Fields;

/** How a sound was given its level. */
final readonly class LevelReceipt
{
    /**
     * @param  string  $target  as it was asked for
     * @param  float  $gain  dB
     * @param  bool  $isHeld  whether the ceiling of the true peak kept it from more
     */
    public function __construct(public string $target, public float $gain, public bool $isHeld, public LevelFigures $before,
        public LevelFigures $after) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'target' => $this->target, 'gain_db' => $this->gain, 'held_by_ceiling' => $this->isHeld,
            'before' => $this->before->toArray(), 'after' => $this->after->toArray(),
        ];
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        $side = fn (string $name): LevelFigures => LevelFigures::fromFields($fields->optional($name)
            ?? throw new \UnexpectedValueException('A receipt tells a level of one side only.'));

        return new self($fields->text('target'), $fields->float('gain_db'), $fields->bool('held_by_ceiling'),
            $side('before'), $side('after'));
    }
}
