<?php

declare(strict_types=1);

namespace App\Lists;

/** A place in a list that is ordered by something and by number: what an address says of where a part of it begins or ends. */
final readonly class ListPlace
{
    private const LONGEST = 4000;

    /**
     * @param  bool  $isBackwards  whether the part before it is meant
     * @param  string|int|float  $value  by what the list is ordered
     */
    private function __construct(public bool $isBackwards, public string|int|float $value, public int $id) {}

    /** @return ?self null where the list is meant from its start */
    public static function asked(string $before, string $after): ?self
    {
        $text = $before === '' ? $after : $before;
        $parts = strlen($text) > self::LONGEST ? null : json_decode((string) base64_decode(strtr($text, '-_', '+/'), true), true);
        [$value, $id] = is_array($parts) ? [$parts[0] ?? null, $parts[1] ?? null] : [null, null];

        return is_int($id) && (is_string($value) || is_int($value) || is_float($value)) ? new self($before !== '', $value, $id) : null;
    }

    public static function written(string|int|float $value, int $id): string
    {
        return rtrim(strtr(base64_encode(json_encode([$value, $id],
            JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE
            | JSON_PRESERVE_ZERO_FRACTION)), '+/', '-_'), '=');
    }
}
