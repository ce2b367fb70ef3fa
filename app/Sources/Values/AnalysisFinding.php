<?php

declare(strict_types=1);

namespace App\Sources\Values;

/** A finding as a page shows it, with what of an order its remedy fills in. */
final readonly class AnalysisFinding
{
    /** @param  array<string, string>  $shaping */
    private function __construct(public string $code, public string $severity, public string $says, public string $remedy,
        public array $shaping, public int $track) {}

    /** @param  array<array-key, mixed>  $finding */
    public static function fromArray(array $finding): self
    {
        $text = fn (string $name): string => is_string($finding[$name] ?? null) ? $finding[$name] : '';

        return new self($text('code'), $text('level'), $text('says'), $text('remedy'),
            array_filter(is_array($finding['shaping'] ?? null) ? $finding['shaping'] : [], is_string(...)),
            is_int($finding['track'] ?? null) ? $finding['track'] : 0);
    }

    /** What stands on the button. */
    public function press(): string
    {
        return rtrim($this->remedy, '.');
    }
}
