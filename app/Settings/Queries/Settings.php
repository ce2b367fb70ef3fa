<?php

declare(strict_types=1);

namespace App\Settings\Queries;

use App\Files\Shelf;
use App\Settings\Models\Setting;
use Illuminate\Database\QueryException;

/** What is set for the whole application. */
final class Settings
{
    /** Nobody makes anything as long as this is set. */
    public const MAKING_HELD = 'making_held';

    /** Whether a sound tells that an order is done. */
    public const RING = 'ring';

    /** Whether the browser tells it. */
    public const NOTIFY = 'notify';

    /** Results that are made at once. */
    public const WORKERS = 'workers';

    public const UPLOAD_GIGABYTES = 'upload_gigabytes';

    public const UPLOAD_HOURS = 'upload_hours';

    /** What becomes of emoji and control characters in names, and in tags, of a new draft. */
    public const NAME_SIGNS = 'name_signs';

    public const TAG_SIGNS = 'tag_signs';

    /** Where a new draft goes: `to:` a destination, `by:` a recipe. */
    public const GOES = 'goes';

    public const PLACE = 'place';

    public const SHELVES = 'shelves';

    /** Formats of recorders that write no headers, by the extension of their files. */
    public const HEADERLESS = 'headerless';

    /** What a new order does for its sources. */
    public const CARE = 'care';

    /** Name of the shelf that safe copies go to; they stay with Octavox where there is none. */
    public const COPIES_ON = 'copies_on';

    /** Where others reach Octavox, for what is published: `https://name`; empty where it is told by who asks. */
    public const PUBLIC_ADDRESS = 'public_address';

    /** Gigabytes that stay free on each drive that something is put on. */
    public const FREE_GIGABYTES = 'free_gigabytes';

    /** @var ?array<string, mixed> */
    private ?array $found = null;

    public function get(string $name, mixed $else = null): mixed
    {
        try {
            $this->found ??= Setting::query()->get()->mapWithKeys(fn (Setting $one): array => [$one->name => $one->value])->all();
        } catch (QueryException) {
            // Before the database is what this version wants, nobody has set anything.
            return $else;
        }

        return $this->found[$name] ?? $else;
    }

    public function is(string $name): bool
    {
        return $this->get($name) === true;
    }

    public function number(string $name): ?int
    {
        $value = $this->get($name);

        return is_int($value) ? $value : null;
    }

    public function text(string $name): string
    {
        $value = $this->get($name);

        return is_string($value) ? $value : '';
    }

    /** @return list<Shelf> those that were opened here; a folder that is gone is left out of what is open, not of the list */
    public function shelves(): array
    {
        $shelves = [];
        $kept = $this->get(self::SHELVES);
        foreach (is_array($kept) ? $kept : [] as $one) {
            if (is_array($one) && is_string($one['name'] ?? null) && is_string($one['path'] ?? null)) {
                $shelves[] = new Shelf($one['name'], $one['path'], ($one['writable'] ?? false) === true);
            }
        }

        return $shelves;
    }

    /** Others may have set something since. */
    public function forget(): void
    {
        $this->found = null;
    }
}
