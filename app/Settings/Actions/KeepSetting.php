<?php

declare(strict_types=1);

namespace App\Settings\Actions;

use App\Settings\Models\Setting;
use App\Settings\Queries\Settings;

/** Keeps one setting. */
final readonly class KeepSetting
{
    public function __construct(private Settings $settings) {}

    /** @param  mixed  $value  null leaves it to what is usual */
    public function set(string $name, mixed $value): void
    {
        $value === null ? Setting::query()->whereKey($name)->delete()
            : Setting::query()->updateOrCreate(['name' => $name], ['value' => $value]);
        $this->settings->forget();
    }
}
