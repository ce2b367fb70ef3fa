<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Json\Fields;

/** One step of a plan, or one thing to know of it, as a kind and the values that belong to it. */
final readonly class Step
{
    /**
     * @param  array<string, int|float|string|list<string>>  $values
     * @param  ?int  $sound  which sound of a video it is about, counted from 0; null where there is one, or where it is about the whole
     */
    private function __construct(public StepKind $kind, public array $values, public ?int $sound = null) {}

    /** @param  int|float|string|list<string>  ...$values  by their names */
    public static function of(StepKind $kind, int|float|string|array ...$values): self
    {
        /** @var array<string, int|float|string|list<string>> $values */
        return new self($kind, $values);
    }

    public function ofSound(int $sound): self
    {
        return new self($this->kind, $this->values, $sound);
    }

    public function number(string $name): int
    {
        $value = $this->values[$name] ?? 0;

        return is_int($value) ? $value : 0;
    }

    public function float(string $name): float
    {
        $value = $this->values[$name] ?? 0.0;

        return is_int($value) || is_float($value) ? (float) $value : 0.0;
    }

    public function text(string $name): string
    {
        $value = $this->values[$name] ?? '';

        return is_string($value) ? $value : '';
    }

    /** @return list<string> */
    public function texts(string $name): array
    {
        $value = $this->values[$name] ?? [];

        return is_array($value) ? $value : [];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['kind' => $this->kind->value] + ($this->sound === null ? [] : ['sound' => $this->sound]) + $this->values;
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        $values = [];
        foreach ($fields->all() as $name => $value) {
            if (is_int($value) || is_float($value) || is_string($value)) {
                $values[(string) $name] = $value;
            } elseif (is_array($value)) {
                $values[(string) $name] = array_values(array_filter($value, is_string(...)));
            }
        }
        unset($values['kind'], $values['sound']);
        $kind = StepKind::tryFrom($fields->text('kind')) ?? throw new \UnexpectedValueException('A plan holds a step that is not known.');

        return new self($kind, $values, $fields->isNull('sound') ? null : $fields->number('sound'));
    }
}
