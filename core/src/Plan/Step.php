<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Json\Fields;
use Octavox\Core\Plan\Steps\StepKind;
use Octavox\Core\Plan\Steps\StepKinds;

/** One step of a plan, or one thing to know of it. */
final readonly class Step
{
    /** @param  ?int  $sound  which sound of a video it is about, counted from 0; null where there is one, or where it is about the whole */
    public function __construct(public StepKind $kind, public ?int $sound = null) {}

    public function ofSound(int $sound): self
    {
        return new self($this->kind, $sound);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $mapper = StepKinds::mapper();

        return ['kind' => $mapper->word($this->kind)] + ($this->sound === null ? [] : ['sound' => $this->sound])
            + $mapper->values($this->kind);
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        $kind = StepKinds::mapper()->build($fields->text('kind'), $fields->all())
            ?? throw new \UnexpectedValueException('A plan holds a step that is not known.');

        return new self($kind, $fields->isNull('sound') ? null : $fields->number('sound'));
    }
}
