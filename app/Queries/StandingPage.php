<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Arrival;
use App\Models\StandingOrder;
use App\Values\ArrivalState;
use App\Values\OutsideShelf;
use App\Values\Place;
use App\Values\Shelf;
use App\Values\Shelves;
use App\Values\WatchedFile;
use Illuminate\Database\Eloquent\Collection;
use Octavox\Core\Reading\UsualExtensions;

/** What the pages of standing orders show. */
final class StandingPage
{
    private const MOST_LOGGED = 200;

    private const MOST_SHOWN = 20;

    public function __construct(private readonly Shelves $shelves, private readonly SettingPage $settings,
        private readonly Presets $presets,
        private readonly WatchedFolder $folders, private readonly MadeHere $made) {}

    /** @return Collection<int, StandingOrder> with how many files are in each state */
    public function all(): Collection
    {
        $counts = [];
        foreach (ArrivalState::cases() as $state) {
            $counts['arrivals as '.$state->value] = fn ($query) => $query->where('state', $state);
        }

        /** @var Collection<int, StandingOrder> */
        return StandingOrder::query()->withCount($counts)->orderBy('title')->get();
    }

    /** @return list<string> */
    public function shelves(): array
    {
        return array_map(fn (Shelf $shelf): string => $shelf->name, $this->shelves->lasting());
    }

    /** @return array<string, array<string, string>> */
    public function goes(): array
    {
        return $this->settings->goes();
    }

    /** @return array<string, string> */
    public function places(): array
    {
        return Place::of('', $this->shelves)->choices();
    }

    /** What somebody calls where it goes. */
    public function title(StandingOrder $standing): string
    {
        return $this->presets->written($standing->goes)->what->title ?? 'what was deleted';
    }

    /** @return Collection<int, Arrival> what came last first */
    public function log(StandingOrder $standing): Collection
    {
        /** @var Collection<int, Arrival> */
        return $standing->arrivals()->with('source', 'order')->latest('updated_at')->latest('id')->limit(self::MOST_LOGGED)->get();
    }

    /**
     * What would be taken now, as far as nobody has seen it yet.
     *
     * @return array{list<string>, int} names, the first ones, and how many there are
     */
    public function wouldTake(StandingOrder $standing): array
    {
        try {
            $files = $this->folders->files($standing);
        } catch (OutsideShelf) {
            return [[], 0];
        }
        $seen = $standing->arrivals()->pluck('identity')->flip()->all();
        $own = $this->made->of(array_map(fn (WatchedFile $file): string => $file->real, $files));
        $new = array_filter($files, fn (WatchedFile $file): bool => ! isset($seen[$file->identity]) && ! isset($own[$file->real])
            && UsualExtensions::isAny(pathinfo($file->path, PATHINFO_EXTENSION)));

        return [array_map(fn (WatchedFile $file): string => $file->path,
            array_slice(array_values($new), 0, self::MOST_SHOWN)), count($new)];
    }
}
