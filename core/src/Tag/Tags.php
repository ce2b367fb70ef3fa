<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** What a file says about itself. Values are UTF-8, without control characters, never empty. */
final readonly class Tags
{
    /**
     * @param  array<string, string>  $values by the field's value
     * @param  list<Chapter>  $chapters  of a file that is sound alone, in the order of time
     * @param  float  $seconds  at which the last of them ends; 0 where nobody has said
     */
    private function __construct(private array $values, public ?Cover $cover, public ?int $timeReference = null, public string $label = '', public array $chapters = [], public float $seconds = 0.0)
    {
    }

    public static function none(): self
    {
        return new self([], null);
    }

    /** Broken UTF-8 and control characters are taken out; an empty value takes the field away; 4,096 characters at most. */
    public function with(TagField $field, string $value): self
    {
        $clean = self::clean($value);
        $values = $this->values;
        unset($values[$field->value]);
        if ($clean !== '') {
            $values[$field->value] = $clean;
        }

        return new self($values, $this->cover, $this->timeReference, $this->label, $this->chapters, $this->seconds);
    }

    public function withCover(?Cover $cover): self
    {
        return new self($this->values, $cover, $this->timeReference, $this->label, $this->chapters, $this->seconds);
    }

    /** @param  ?int  $samples  from midnight to the first sample, at the rate of the sound: EBU Tech 3285, "TimeReference" */
    public function withTimeReference(?int $samples): self
    {
        return new self($this->values, $this->cover, $samples, $this->label, $this->chapters, $this->seconds);
    }

    /** What one of several results of a recording holds, such as `lav`; WAV says so in its description. */
    public function withLabel(string $label): self
    {
        return new self($this->values, $this->cover, $this->timeReference, mb_scrub($label), $this->chapters, $this->seconds);
    }

    /**
     * They are put into the order of time, and their titles are cleaned as values are.
     *
     * @param  list<Chapter>  $chapters
     * @param  float  $seconds  at which the last ends; 0 where that is not known
     */
    public function withChapters(array $chapters, float $seconds = 0.0): self
    {
        usort($chapters, fn (Chapter $one, Chapter $other): int => $one->starts <=> $other->starts);
        $clean = array_map(fn (Chapter $chapter): Chapter => new Chapter($chapter->starts, self::clean($chapter->title)), $chapters);

        return new self($this->values, $this->cover, $this->timeReference, $this->label, $clean, $seconds);
    }

    /** Seconds at which a chapter ends: where the next begins, or the sound ends. */
    public function chapterEnds(int $index): float
    {
        return $this->chapters[$index + 1]->starts ?? max($this->seconds, ($this->chapters[$index]->starts ?? 0.0) + 0.001);
    }

    /** What this says, and what another says besides. */
    public function over(self $other): self
    {
        return new self([...$other->values, ...$this->values], $this->cover ?? $other->cover, $this->timeReference ?? $other->timeReference, $this->label === '' ? $other->label : $this->label, $this->chapters === [] ? $other->chapters : $this->chapters, max($this->seconds, $other->seconds));
    }

    public function get(TagField $field): ?string
    {
        return $this->values[$field->value] ?? null;
    }

    public function isEmpty(): bool
    {
        return $this->values === [] && $this->cover === null && $this->chapters === [];
    }

    private static function clean(string $text): string
    {
        return mb_substr(trim((string) preg_replace('/[\x00-\x08\x0B\x0C\x0E-\x1F\x7F]/', '', mb_scrub($text, 'UTF-8'))), 0, 4096);
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
