<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/**
 * What broadcasters say of a recording: the fields of the `bext` chunk, EBU Tech 3285, 2.3, without the time reference. Null leaves a
 * field open.
 */
final readonly class Broadcast
{
    /** Bytes that each field has room for. */
    public const ROOM = ['description' => 256, 'originator' => 32, 'reference' => 32, 'date' => 10, 'time' => 8, 'history' => 16_384];

    /**
     * @param  ?string  $originator  who made it
     * @param  ?string  $reference  by which its originator finds it again
     * @param  ?string  $date  of its origination, `2026-05-09`
     * @param  ?string  $time  of its first sample, `14:03:22`
     * @param  ?string  $history  a line for each time it was coded, EBU R 98
     */
    public function __construct(public ?string $description = null, public ?string $originator = null, public ?string $reference = null,
        public ?string $date = null, public ?string $time = null, public ?string $history = null) {}

    /** What this says, and where it says nothing what the other says. */
    public function over(?self $beneath): self
    {
        return new self($this->description ?? $beneath?->description, $this->originator ?? $beneath?->originator,
            $this->reference ?? $beneath?->reference, $this->date ?? $beneath?->date, $this->time ?? $beneath?->time,
            $this->history ?? $beneath?->history);
    }

    /** Whether a field can hold a value: a date and a time are written in one way only. */
    public static function holds(string $field, string $value): bool
    {
        $isWritten = match ($field) {
            'date' => preg_match('/^\d{4}-\d\d-\d\d$/', $value) === 1,
            'time' => preg_match('/^\d\d:\d\d:\d\d$/', $value) === 1,
            default => true,
        };

        return $value === '' || $isWritten && isset(self::ROOM[$field]) && strlen($value) <= self::ROOM[$field];
    }

    /** @return array<string, string> only what is said */
    public function toArray(): array
    {
        return array_filter(get_object_vars($this), is_string(...));
    }

    /** @param  array<array-key, mixed>  $fields  what {@see self::toArray()} gave; what no field can hold is left out */
    public static function fromArray(array $fields): self
    {
        $text = fn (string $name): ?string => is_string($fields[$name] ?? null) && self::holds($name, $fields[$name])
            ? $fields[$name] : null;

        return new self($text('description'), $text('originator'), $text('reference'), $text('date'), $text('time'), $text('history'));
    }
}
