<?php

declare(strict_types=1);

namespace App\Watching\Pages;

use App\Files\OutsideShelf;
use App\Files\Shelf;
use App\Files\Shelves;
use App\Orders\Planning\Place;
use App\Presets\Queries\Presets;
use App\Results\Queries\MadeHere;
use App\Settings\Pages\SettingPage;
use App\Watching\Models\Arrival;
use App\Watching\Models\WatchedFolder;
use App\Watching\Queries\FolderContents;
use App\Watching\Values\ArrivalState;
use App\Watching\Values\WatchedFile;
use Illuminate\Database\Eloquent\Collection;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;
use Octavox\Core\Reading\UsualExtensions;

/** What the pages of standing orders show. */
final class WatchedFolderPage
{
    private const MOST_LOGGED = 200;

    private const MOST_SHOWN = 20;

    public function __construct(private readonly Shelves $shelves, private readonly SettingPage $settings,
        private readonly Presets $presets,
        private readonly FolderContents $folders, private readonly MadeHere $made) {}

    /** @return Collection<int, WatchedFolder> with how many files are in each state */
    public function all(): Collection
    {
        $counts = [];
        foreach (ArrivalState::cases() as $state) {
            $counts['arrivals as '.$state->value] = fn ($query) => $query->where('state', $state);
        }

        /** @var Collection<int, WatchedFolder> */
        return WatchedFolder::query()->withCount($counts)->orderBy('title')->get();
    }

    /** @return list<string> */
    public function shelves(): array
    {
        return array_map(fn (Shelf $shelf): string => $shelf->name, $this->shelves->lasting());
    }

    /**
     * @return array<string, array<string, string>>
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function goes(): array
    {
        return $this->settings->goes();
    }

    /** @return array<string, string> */
    public function places(): array
    {
        return Place::of('', $this->shelves)->choices();
    }

    /**
     * What somebody calls where it goes.
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function title(WatchedFolder $standing): string
    {
        return $this->presets->written($standing->goes)->what->title ?? 'what was deleted';
    }

    /** @return Collection<int, Arrival> what came last first */
    public function log(WatchedFolder $standing): Collection
    {
        /** @var Collection<int, Arrival> */
        return $standing->arrivals()->with('source', 'order')->latest('updated_at')->latest('id')->limit(self::MOST_LOGGED)->get();
    }

    /**
     * What would be taken now, as far as nobody has seen it yet.
     *
     * @return array{list<string>, int} names, the first ones, and how many there are
     */
    public function wouldTake(WatchedFolder $standing): array
    {
        try {
            $files = $this->folders->files($standing);
        } catch (OutsideShelf) {
            return [[], 0];
        }
        $seen = $standing->arrivals()->pluck('identity')->flip()->all();
        $own = $this->made->find(array_map(fn (WatchedFile $file): string => $file->real, $files));
        $new = array_filter($files, fn (WatchedFile $file): bool => ! isset($seen[$file->identity]) && ! isset($own[$file->real])
            && UsualExtensions::isAny(pathinfo($file->path, PATHINFO_EXTENSION)));

        return [array_map(fn (WatchedFile $file): string => $file->path,
            array_slice(array_values($new), 0, self::MOST_SHOWN)), count($new)];
    }
}
