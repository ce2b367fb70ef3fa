<?php

declare(strict_types=1);

namespace App\Watching\Actions;

use App\Files\OutsideShelf;
use App\Files\Shelves;
use App\Orders\Planning\Place;
use App\Presets\Queries\Presets;
use App\Settings\Values\SettingRefused;
use App\Watching\Models\WatchedFolder;
use App\Watching\Queries\FolderContents;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Order\RecipeInvalid;

/** Sets up what is made of whatever lands in a folder. */
final class ChangeWatchedFolder
{
    private const MOST = 100;

    private const LONGEST = ['title' => 100, 'shelf' => 100, 'folder' => 2000, 'goes' => 100, 'place' => 2000, 'name' => 400];

    public function __construct(private readonly Presets $presets, private readonly Shelves $shelves,
        private readonly FolderContents $folders) {}

    /**
     * @param  array<array-key, mixed>  $input
     *
     * @throws SettingRefused why it cannot be set up like this
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function add(array $input): WatchedFolder
    {
        if (WatchedFolder::query()->count() >= self::MOST) {
            throw new SettingRefused('There are as many standing orders as there may be; delete one first.');
        }
        $standing = new WatchedFolder;
        $this->with($standing, $input);

        return $standing;
    }

    /**
     * @param  array<array-key, mixed>  $input
     *
     * @throws SettingRefused why it cannot be like this
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function with(WatchedFolder $standing, array $input): void
    {
        foreach (self::LONGEST as $field => $most) {
            $value = $input[$field] ?? '';
            $standing->setAttribute($field, mb_substr(trim(mb_scrub(is_scalar($value) ? (string) $value : '')), 0, $most));
        }
        $standing->folder = trim($standing->folder, '/');
        $standing->nested = ($input['nested'] ?? null) === '1';
        $standing->place = Place::of($standing->place, $this->shelves)->written();
        $unknown = (new NamePattern($standing->name === '' ? '{stem}' : $standing->name))->unknown();
        $why = match (true) {
            $standing->title === '' => 'A standing order needs a title.',
            $this->presets->written($standing->goes) === null => 'Choose a destination or a recipe: '
                .'what is to be made of each file.',
            $unknown !== [] => sprintf('There is no field %s for names.', $unknown[0]),
            default => $this->away($standing),
        };
        if ($why !== '') {
            throw new SettingRefused($why.' Nothing was changed.');
        }
        $standing->save();
    }

    private function away(WatchedFolder $standing): string
    {
        try {
            $this->folders->shelf($standing);

            return '';
        } catch (OutsideShelf $away) {
            return $away->getMessage();
        }
    }

    public function pause(WatchedFolder $folder, bool $isPaused): void
    {
        $folder->update(['paused' => $isPaused]);
    }

    /** Its results stay, and so do the files in its folder. */
    public function drop(WatchedFolder $folder): void
    {
        $folder->delete();
    }
}
