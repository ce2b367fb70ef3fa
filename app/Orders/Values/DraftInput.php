<?php

declare(strict_types=1);

namespace App\Orders\Values;

use App\Lists\LineNumbers;

/** What is asked of a draft that is begun: sources, fields for all of them, pieces of single ones. */
final readonly class DraftInput
{
    private const LONGEST = 20_000;

    /**
     * @param  list<int>  $sources
     * @param  array<array-key, mixed>  $fields  of {@see SpecForm}
     * @param  array<int, string>  $pieces  by source
     */
    private function __construct(public array $sources, public array $fields, public array $pieces) {}

    /** @param  array<array-key, mixed>  $input */
    public static function of(array $input): self
    {
        $pieces = [];
        foreach (explode(';', is_string($input['pieces'] ?? null) ? mb_substr($input['pieces'], 0, self::LONGEST) : '') as $one) {
            if (preg_match('/^(\d{1,12}):([0-9a-z:.,#\- ]{1,12000})$/', $one, $parts) === 1) {
                $pieces[(int) $parts[1]] = $parts[2];
            }
        }

        return new self(LineNumbers::read($input['sources'] ?? []),
            array_diff_key($input, ['sources' => 0, 'pieces' => 0, '_token' => 0]), $pieces);
    }

    /** A mark by which the same address is known again. */
    public function mark(): string
    {
        return hash('xxh128', serialize([$this->sources, $this->fields, $this->pieces]));
    }
}
