<?php

declare(strict_types=1);

namespace App\Presets\Actions;

use App\Presets\Models\Preset;
use App\Presets\Queries\Presets;
use App\Presets\Values\PresetKind;

/** Notes that somebody has just used a destination or a recipe: what was used last is offered first. */
final readonly class UsePreset
{
    public function __construct(private Presets $presets) {}

    public function used(PresetKind $kind, string $name): void
    {
        Preset::query()->updateOrCreate(['kind' => $kind, 'name' => $name], ['used_at' => now()]);
        $this->presets->forget();
    }
}
