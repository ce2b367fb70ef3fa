<?php

declare(strict_types=1);

namespace App\Presets\Actions;

use App\Files\Folder;
use App\Presets\Models\Preset;
use App\Presets\Values\PresetKind;
use Illuminate\Support\Facades\File;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Failure;
use Octavox\Core\Order\Recipe;

/** Recipes and destinations that people made, as files beside the database: the command line takes them by name as well. */
final class PresetFiles
{
    public function write(Recipe|Destination $what): void
    {
        $path = self::path($what instanceof Recipe ? PresetKind::Recipe : PresetKind::Destination, $what->name);
        Folder::ready(dirname($path));
        File::replace($path, json_encode($what->toArray(), JSON_PRETTY_PRINT | JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE
            | JSON_UNESCAPED_SLASHES)."\n");
    }

    public function remove(PresetKind $kind, string $name): void
    {
        File::delete(self::path($kind, $name));
    }

    /** Every file as the database has it, and no other. */
    public function writeAll(): void
    {
        foreach (PresetKind::cases() as $kind) {
            File::delete(File::glob(dirname(self::path($kind, 'any')).'/*.json'));
        }
        foreach (Preset::query()->whereNotNull('document')->get() as $row) {
            try {
                $this->write($row->kind->read($row->document ?? []));
            } catch (Failure $strange) {
                report($strange);
            }
        }
    }

    private static function path(PresetKind $kind, string $name): string
    {
        return config()->string('octavox.home').'/'.mb_strtolower($kind->plural()).'/'.$name.'.json';
    }
}
