<?php

declare(strict_types=1);

namespace App\Orders\Planning;

use App\Lists\Remedy;

/** Why a result does not simply get the name that was asked for it. */
enum NameClash: string
{
    case Numbered = 'numbered';
    case Exists = 'exists';
    case ForGood = 'for-good';
    case Source = 'source';

    public function says(PlannedResult $one): string
    {
        return match ($this) {
            self::Numbered => 'Another line makes a file of this name, so this one is numbered.',
            self::Source => sprintf('“%s” in that place is a source, which nothing ever takes the place of: number this one '
                .'or leave it out.',
                $one->plan?->name()),
            self::Exists, self::ForGood => sprintf('There is a file called “%s” in that place already: %s.', $one->plan?->name(),
                match ($one->plan?->target->ifExists->value) {
                    'replace' => $this === self::ForGood ? 'it will be replaced for good, for there is no bin on its drive'
                        : 'it goes into the bin',
                    'skip' => 'it stays, and nothing is made',
                    'ask' => 'say what becomes of it',
                    default => 'this one is numbered',
                }),
        };
    }

    /** @return list<Remedy> */
    public function remedies(PlannedResult $one): array
    {
        $chosen = $one->plan?->target->ifExists->value;

        return $this === self::Numbered ? [new Remedy('Name them with the counter', ['name' => '{number:3} {stem}'])]
            : array_values(array_filter([new Remedy('Replace it', ['existing' => 'replace']),
                new Remedy('Leave it out', ['existing' => 'skip']),
                new Remedy('Number it', ['existing' => 'number'])],
                fn (Remedy $remedy): bool => $remedy->fields['existing'] !== $chosen && ($this !== self::Source
                    || $remedy->fields['existing'] !== 'replace')));
    }
}
