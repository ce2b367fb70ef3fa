<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Files\PlainName;
use App\Sources\Models\Source;
use Octavox\Core\Name\LegalName;

/** Changes what people say of a source; its file stays as it is. */
final class ChangeSource
{
    private const LONGEST_NOTE = 4000;

    public function __construct(private readonly GroupSources $groups) {}

    /** @param  array<array-key, mixed>  $input  `name`, `note`, `group`; only what is given is changed */
    public function with(Source $source, array $input): void
    {
        $text = fn (string $field): ?string => ! array_key_exists($field, $input) || is_array($input[$field]) ? null
            : trim(mb_scrub(is_scalar($input[$field]) ? (string) $input[$field] : ''));
        $name = $text('name');
        $source->update(array_filter([
            // Its own name, said by somebody, is what it is called from now on.
            'given_name' => $name === null || $name === $source->name && $source->given_name === ''
                && ! PlainName::saysNothing($name) ? null
                : LegalName::shortened($name, 250),
            'note' => $text('note') === null ? null : mb_substr($text('note'), 0, self::LONGEST_NOTE),
        ], fn (?string $value): bool => $value !== null));
        if ($text('group') !== null) {
            $this->groups->into([$source->id], $text('group'));
        }
    }
}
