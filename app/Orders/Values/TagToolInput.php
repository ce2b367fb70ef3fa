<?php

declare(strict_types=1);

namespace App\Orders\Values;

/** What a tool for tags is told. */
final readonly class TagToolInput
{
    private const MOST_NUMBER = 9999;

    /**
     * @param  string  $field  the column; empty for all
     * @param  int  $from  the first number
     * @param  bool  $isOfAll  whether numbers say of how many they are
     */
    private function __construct(public string $field, public string $pattern, public string $find, public string $with, public int $from,
        public bool $isOfAll) {}

    /** @param  array<array-key, mixed>  $input */
    public static function of(array $input): self
    {
        $text = fn (string $name): string => is_string($input[$name] ?? null) ? mb_substr(mb_scrub($input[$name]), 0, 400) : '';
        $field = array_key_first(TagInput::read([$text('field') => 'x'])) ?? '';

        return new self((string) $field, $text('pattern'), $text('search'), $text('with'),
            max(0, min(self::MOST_NUMBER, (int) ($text('from') === ''
            ? '1' : $text('from')))), $text('of_all') === '1');
    }
}
