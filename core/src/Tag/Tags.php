<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** What a file says about itself. Values are UTF-8, without control characters, never empty. */
final readonly class Tags
{
    /** @param  array<string, string>  $values by the field's value */
    private function __construct(private array $values, public ?Cover $cover, public ?int $timeReference = null, public string $label = '')
    {
    }

    public static function none(): self
    {
        return new self([], null);
    }

    /** Broken UTF-8 and control characters are taken out; an empty value takes the field away; 4,096 characters at most. */
    public function with(TagField $field, string $value): self
    {
        $clean = trim((string) preg_replace('/[\x00-\x08\x0B\x0C\x0E-\x1F\x7F]/', '', mb_scrub($value, 'UTF-8')));
        $values = $this->values;
        unset($values[$field->value]);
        if ($clean !== '') {
            $values[$field->value] = mb_substr($clean, 0, 4096);
        }

        return new self($values, $this->cover, $this->timeReference, $this->label);
    }

    public function withCover(?Cover $cover): self
    {
        return new self($this->values, $cover, $this->timeReference, $this->label);
    }

    /** @param  ?int  $samples  from midnight to the first sample, at the rate of the sound: EBU Tech 3285, "TimeReference" */
    public function withTimeReference(?int $samples): self
    {
        return new self($this->values, $this->cover, $samples, $this->label);
    }

    /** What one of several results of a recording holds, such as `lav`; WAV says so in its description. */
    public function withLabel(string $label): self
    {
        return new self($this->values, $this->cover, $this->timeReference, mb_scrub($label));
    }

    public function get(TagField $field): ?string
    {
        return $this->values[$field->value] ?? null;
    }

    public function isEmpty(): bool
    {
        return $this->values === [] && $this->cover === null;
    }

    /** @return array<string, string> by the field's value, in the order of the fields */
    public function values(): array
    {
        $ordered = [];
        foreach (TagField::cases() as $field) {
            if (isset($this->values[$field->value])) {
                $ordered[$field->value] = $this->values[$field->value];
            }
        }

        return $ordered;
    }

    /** @param  array<array-key, mixed>  $values unknown fields are left out */
    public static function fromArray(array $values): self
    {
        $tags = self::none();
        foreach ($values as $name => $value) {
            $field = TagField::tryFrom((string) $name);
            if ($field !== null && is_scalar($value)) {
                $tags = $tags->with($field, (string) $value);
            }
        }

        return $tags;
    }
}
