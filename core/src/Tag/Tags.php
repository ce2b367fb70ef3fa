<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** What a file says about itself. Values are UTF-8, without control characters, never empty; a field can have several. */
final readonly class Tags
{
    /** Between several values where only one has a place. */
    private const BETWEEN = '; ';

    private const MOST_CHARACTERS = 4096;

    private const MOST_LYRICS = 65_536;

    private const MOST_VALUES = 64;

    private const MOST_FREE = 500;

    /** The begin of 2100. */
    private const END_OF_TIME = 4_102_444_800;

    /**
     * @param  array<string, non-empty-list<string>>  $values  by the field's value
     * @param  array<string, non-empty-list<string>>  $free  of fields that only go by a name, by {@see FreeName}
     * @param  list<Chapter>  $chapters  of a file that is sound alone, in the order of time
     * @param  float  $seconds  at which the last of them ends; 0 where nobody has said
     * @param  string  $recorded  ISO 8601 date, or date and time, at which it was recorded; empty where nobody has said
     * @param  ?Broadcast  $broadcast  null where nothing is said of it
     */
    private function __construct(private array $values, private array $free, public ?Cover $cover, public ?int $timeReference = null,
        public string $label = '', public array $chapters = [], public float $seconds = 0.0, public string $recorded = '',
        public ?Broadcast $broadcast = null) {}

    public static function none(): self
    {
        return new self([], [], null);
    }

    /**
     * Broken UTF-8 and control characters are taken out; without a value that is left the field goes; 4,096 characters at most, 65,536 of
     * lyrics.
     */
    public function with(TagField $field, string ...$values): self
    {
        $clean = self::cleaned(array_values($values), $field === TagField::Lyrics ? self::MOST_LYRICS : self::MOST_CHARACTERS);
        $all = $this->values;
        unset($all[$field->value]);
        if ($clean !== []) {
            $all[$field->value] = $clean;
        }

        return $this->copy(['values' => $all]);
    }

    /** One value more of a field; the same again is none. */
    public function adding(TagField $field, string ...$values): self
    {
        return $this->with($field, ...($this->values[$field->value] ?? []), ...$values);
    }

    /** A value of a field that only goes by its name, added to those it has; names that are about the coding of a file are left out. */
    public function addingFree(string $name, string ...$values): self
    {
        $name = FreeName::clean($name);
        $clean = $name === null ? [] : self::cleaned([...$this->free[$name] ?? [], ...array_values($values)], self::MOST_CHARACTERS);
        if ($name === null || $clean === [] || count($this->free) >= self::MOST_FREE) {
            return $this;
        }

        return $this->copy(['free' => [...$this->free, $name => $clean]]);
    }

    /** New values of a field that only goes by its name; none takes it away. */
    public function withFree(string $name, string ...$values): self
    {
        $free = $this->free;
        unset($free[FreeName::clean($name) ?? '']);

        return $this->copy(['free' => $free])->addingFree($name, ...$values);
    }

    /**
     * Every value, and the titles of chapters, as a function gives them back.
     *
     * @param  \Closure(string): string  $change
     */
    public function mapped(\Closure $change): self
    {
        $tags = $this->copy(['values' => [], 'free' => []]);
        foreach ($this->values as $field => $values) {
            $tags = $tags->with(TagField::from($field), ...array_map($change, $values));
        }
        foreach ($this->free as $name => $values) {
            $tags = $tags->addingFree($name, ...array_map($change, $values));
        }

        return $tags->withChapters(array_map(fn (Chapter $one): Chapter => new Chapter($one->starts, $change($one->title)),
            $this->chapters), $this->seconds);
    }

    /** Without what only holds for the level that the sound had. */
    public function withoutLevels(): self
    {
        $free = array_filter($this->free, fn (string $name): bool => ! str_starts_with($name, 'REPLAYGAIN_')
            && ! str_starts_with($name, 'R128_'), ARRAY_FILTER_USE_KEY);

        return $this->copy(['free' => $free]);
    }

    public function withCover(?Cover $cover): self
    {
        return $this->copy(['cover' => $cover]);
    }

    /** @param  ?int  $samples  from midnight to the first sample, at the rate of the sound: EBU Tech 3285, "TimeReference" */
    public function withTimeReference(?int $samples): self
    {
        return $this->copy(['timeReference' => $samples]);
    }

    /**
     * When it was recorded, as far as that is a date that there is.
     *
     * @param  string  $date  ISO 8601: `2026-05-09`, or with a time `2026-05-09T14:03:22`, perhaps with `Z` or an offset behind it
     */
    public function withRecorded(string $date): self
    {
        $isDate = preg_match('/^(\d{4})-(\d\d)-(\d\d)(?:[T ]\d\d:\d\d(?::\d\d)?(?:\.\d+)?(?:Z|[+-]\d\d:?\d\d)?)?$/', $date, $parts) === 1
            && checkdate((int) $parts[2], (int) $parts[3], (int) $parts[1]);

        return $isDate ? $this->copy(['recorded' => strtr($date, ' ', 'T')]) : $this;
    }

    /** The same from a count of seconds since the start of 1970, in UTC; what lies before that, or far in the time to come, is no date. */
    public function withRecordedAt(int $seconds): self
    {
        return $seconds <= 0 || $seconds >= self::END_OF_TIME ? $this : $this->withRecorded(gmdate('Y-m-d\TH:i:s\Z', $seconds));
    }

    /** Seconds since the start of 1970; null where it is not known. A time without an offset is taken as it stands. */
    public function recordedAt(): ?int
    {
        return $this->recorded === '' ? null : (new \DateTimeImmutable($this->recorded, new \DateTimeZone('UTC')))->getTimestamp();
    }

    /** The day on which it was recorded, where that is known: by the container, or by a year that is a whole date. */
    public function day(): string
    {
        $date = $this->recorded === '' ? $this->get(TagField::Year) ?? '' : $this->recorded;

        return preg_match('/^\d{4}-\d\d-\d\d/', $date) === 1 ? substr($date, 0, 10) : '';
    }

    public function withBroadcast(?Broadcast $broadcast): self
    {
        return $this->copy(['broadcast' => $broadcast]);
    }

    /** What one of several results of a recording holds, such as `lav`; WAV says so in its description. */
    public function withLabel(string $label): self
    {
        return $this->copy(['label' => mb_scrub($label)]);
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
        $clean = array_map(fn (Chapter $chapter): Chapter => new Chapter($chapter->starts,
            self::clean($chapter->title, self::MOST_CHARACTERS)), $chapters);

        return $this->copy(['chapters' => $clean, 'seconds' => $seconds]);
    }

    /** Seconds at which a chapter ends: where the next begins, or the sound ends. */
    public function chapterEnds(int $index): float
    {
        return $this->chapters[$index + 1]->starts ?? max($this->seconds, ($this->chapters[$index]->starts ?? 0.0) + 0.001);
    }

    /** What this says, and what another says besides. */
    public function over(self $other): self
    {
        return new self([...$other->values, ...$this->values], [...$other->free, ...$this->free], $this->cover ?? $other->cover,
            $this->timeReference ?? $other->timeReference, $this->label === '' ? $other->label : $this->label,
            $this->chapters === [] ? $other->chapters : $this->chapters, max($this->seconds, $other->seconds),
            $this->recorded === '' ? $other->recorded : $this->recorded, $this->broadcast ?? $other->broadcast);
    }

    /** All values in one text; null where there is none. */
    public function get(TagField $field): ?string
    {
        return isset($this->values[$field->value]) ? implode(self::BETWEEN, $this->values[$field->value]) : null;
    }

    /** @return list<string> */
    public function all(TagField $field): array
    {
        return $this->values[$field->value] ?? [];
    }

    /** @return array<string, non-empty-list<string>> fields that only go by a name, by the name among comments */
    public function free(): array
    {
        return $this->free;
    }

    public function isEmpty(): bool
    {
        return $this->values === [] && $this->free === [] && $this->cover === null && $this->chapters === [];
    }

    /** @return array<string, string> by the field's value in the order of the fields, then by name; several values in one text */
    public function values(): array
    {
        return array_map(fn (string|array $value): string => is_array($value) ? implode(self::BETWEEN, $value) : $value, $this->toArray());
    }

    /** @return array<string, string|list<string>> the same; several values as a list */
    public function toArray(): array
    {
        $ordered = [];
        foreach (TagField::cases() as $field) {
            if (isset($this->values[$field->value])) {
                $ordered[$field->value] = $this->values[$field->value];
            }
        }

        return array_map(fn (array $values): string|array => count($values) === 1 ? $values[0] : $values, [...$ordered, ...$this->free]);
    }

    /** @param  array<array-key, mixed>  $values  what {@see self::toArray()} gave */
    public static function fromArray(array $values): self
    {
        $tags = self::none();
        foreach ($values as $name => $value) {
            $field = TagField::tryFrom((string) $name);
            $texts = array_map(fn (mixed $one): string => is_scalar($one) ? (string) $one : '',
                is_array($value) ? array_values($value) : [$value]);
            $tags = $field !== null ? $tags->with($field, ...$texts) : $tags->addingFree((string) $name, ...$texts);
        }

        return $tags;
    }

    /** @param  array<string, mixed>  $parts  instead of the own ones, under the names of the constructor */
    private function copy(array $parts): self
    {
        /** @phpstan-ignore argument.type */
        return new self(...array_replace(get_object_vars($this), $parts));
    }

    /**
     * @param  list<string>  $values
     * @return list<string>
     */
    private static function cleaned(array $values, int $most): array
    {
        $clean = array_filter(array_map(fn (string $value): string => self::clean($value, $most), $values),
            fn (string $value): bool => $value !== '');

        return array_slice(array_values(array_unique($clean)), 0, self::MOST_VALUES);
    }

    private static function clean(string $text, int $most): string
    {
        return mb_substr(trim((string) preg_replace('/[\x00-\x08\x0B\x0C\x0E-\x1F\x7F]/', '', mb_scrub($text, 'UTF-8'))), 0, $most);
    }
}
