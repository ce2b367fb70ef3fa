<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Setting;

/** What is set for the whole application. */
final class Settings
{
    /** Nobody makes anything as long as this is set. */
    public const MAKING_HELD = 'making_held';

    /** Whether a sound tells that an order is done. */
    public const RING = 'ring';

    /** Whether the browser tells it. */
    public const NOTIFY = 'notify';

    /** @var ?array<string, mixed> */
    private ?array $found = null;

    public function get(string $name, mixed $else = null): mixed
    {
        $this->found ??= Setting::query()->get()->mapWithKeys(fn (Setting $one): array => [$one->name => $one->value])->all();

        return $this->found[$name] ?? $else;
    }

    public function is(string $name): bool
    {
        return $this->get($name) === true;
    }

    /** @param  mixed  $value  null leaves it to what is usual */
    public function set(string $name, mixed $value): void
    {
        $value === null ? Setting::query()->whereKey($name)->delete()
            : Setting::query()->updateOrCreate(['name' => $name], ['value' => $value]);
        $this->found = null;
    }

    /** Others may have set something since. */
    public function forget(): void
    {
        $this->found = null;
    }
}
