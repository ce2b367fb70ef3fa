<?php

declare(strict_types=1);

namespace App\Presets\Actions;

use App\Presets\Models\Preset;
use App\Presets\Queries\Presets;
use App\Presets\Values\PresetKind;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\Recipe;
use Octavox\Core\Order\RecipeInvalid;

/** Keeps recipes and destinations that people make; those that ship with Octavox are never changed. */
final class KeepPreset
{
    private const MOST = 1000;

    public function __construct(private readonly Presets $presets, private readonly PresetFiles $files) {}

    /**
     * A new one, under a name that no other has.
     *
     * @throws Failure where the document is none of the kind
     */
    public function add(Recipe|Destination $what): Recipe|Destination
    {
        $kind = self::kind($what);
        $taken = $this->presets->all($kind);
        if (count($taken) >= self::MOST) {
            throw RecipeInvalid::tooMany(self::MOST);
        }
        $document = $what->toArray();
        $name = $what->name;
        for ($number = 2; isset($taken[$name]); $number++) {
            $name = substr($what->name, 0, 54).'-'.$number;
        }
        $document['name'] = $name;
        $kept = $kind->read(self::plain($document));
        Preset::query()->updateOrCreate(['kind' => $kind, 'name' => $name], ['document' => self::plain($document)]);
        $this->presets->forget();
        $this->files->write($kept);

        return $kept;
    }

    /**
     * Other contents under the same name.
     *
     * @param  array<string, mixed>  $document
     *
     * @throws Failure where it is none of the kind, or ships with Octavox
     */
    public function change(PresetKind $kind, string $name, array $document): void
    {
        $row = Preset::query()->where('kind', $kind)->where('name', $name)->whereNotNull('document')->first();
        if ($row === null) {
            throw $kind === PresetKind::Recipe ? RecipeInvalid::unknown($name, []) : DestinationInvalid::unknown($name, []);
        }
        $what = $kind->read(self::plain(['version' => 1, 'name' => $name] + $document));
        Preset::query()->whereKey($row->id)->update(['document' => json_encode($what->toArray())]);
        $this->presets->forget();
        $this->files->write($what);
    }

    public function remove(PresetKind $kind, string $name): void
    {
        Preset::query()->where('kind', $kind)->where('name', $name)->whereNotNull('document')->delete();
        $this->presets->forget();
        $this->files->remove($kind, $name);
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function star(PresetKind $kind, string $name, bool $starred): void
    {
        if (isset($this->presets->all($kind)[$name])) {
            Preset::query()->updateOrCreate(['kind' => $kind, 'name' => $name], ['starred' => $starred]);
            $this->presets->forget();
        }
    }

    private static function kind(Recipe|Destination $what): PresetKind
    {
        return $what instanceof Recipe ? PresetKind::Recipe : PresetKind::Destination;
    }

    /**
     * @param  array<array-key, mixed>  $document
     * @return array<string, mixed> without objects
     */
    private static function plain(array $document): array
    {
        /** @var array<string, mixed> */
        return json_decode((string) json_encode($document), true);
    }
}
