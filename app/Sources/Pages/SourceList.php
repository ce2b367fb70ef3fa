<?php

declare(strict_types=1);

namespace App\Sources\Pages;

use App\Database\FoundNames;
use App\Lists\ListPage;
use App\Lists\ListPlace;
use App\Orders\Models\Order;
use App\Sources\Models\CopiedFolder;
use App\Sources\Models\Group;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Values\SourceState;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;

/** The sources that a page of the list shows. */
final class SourceList
{
    public const PER_PAGE = 60;

    /** What was copied in is told for so long. */
    private const MINUTES_TOLD = 3;

    private const MOST_KINDS = 50;

    private const MOST_GROUPS = 200;

    /** By what the list is ordered, as its indexes have it, and whether rising. */
    private const ORDERS = ['new' => ['created_at', false], 'name' => ['name', true], 'length' => ['ifnull(seconds, -1)', false],
        'size' => ['bytes', false], 'container' => ["ifnull(container, '')", true], 'folder' => ['folder', true]];

    private const COLUMNS = ['id', 'name', 'folder', 'origin', 'state', 'container', 'bytes', 'seconds', 'picture', 'worst', 'path',
        'error_says', 'error_code', 'stated', 'same_as', 'created_at', 'note', 'given_name', 'group_id', 'belongs_to'];

    /** What can be shown alone, beside codecs and layouts. */
    public const KINDS = ['findings' => 'with findings', 'stop' => 'that cannot be used', 'picture' => 'with a picture',
        'sound' => 'sound alone'];

    /** @return ListPage<Source> */
    public function page(string $find, string $order, string $show = '', ?ListPlace $from = null): ListPage
    {
        $name = isset(self::ORDERS[$order]) ? $order : 'new';
        [$by, $isRising] = self::ORDERS[$name];
        $isUp = $isRising !== ($from->isBackwards ?? false);
        $direction = $isUp ? 'asc' : 'desc';
        $rows = $this->query($find, $show)->from(DB::raw("sources indexed by sources_by_$name"))->select(self::COLUMNS)
            ->selectRaw("$by as place")->with(['tracks', 'group', 'companions'])
            ->when($from !== null, fn (Builder $query) => $query->whereRaw(
                "($by, id) ".($isUp ? '>' : '<').($name === 'length' ? ' (cast(? as real), ?)' : ' (?, ?)'),
                [$from?->value, $from?->id]))
            ->orderByRaw("$by $direction, id $direction")->limit(self::PER_PAGE + 1)->get();
        $isMore = $rows->count() > self::PER_PAGE;
        $rows = $rows->take(self::PER_PAGE);
        $items = array_values(($from->isBackwards ?? false ? $rows->reverse() : $rows)->all());
        $place = function (?Source $source): ?string {
            $value = $source?->getAttribute('place');

            $isPlace = is_string($value) || is_int($value) || is_float($value);

            return $source === null ? null : ListPlace::written($isPlace ? $value : '', $source->id);
        };
        [$first, $last] = [$items[0] ?? null, $items[count($items) - 1] ?? null];
        $isBackwards = $from->isBackwards ?? false;

        return new ListPage($items, ($isBackwards ? $isMore : $from !== null) ? $place($first) : null,
            ($isBackwards || $isMore) ? $place($last) : null);
    }

    /** How many are on the list, or of them in what is shown. */
    public function count(string $find, string $show): int
    {
        return $this->query($find, $show)->from(DB::raw('sources indexed by sources_by_new'))->count();
    }

    /** @return Collection<int, CopiedFolder> that are being copied in, or were a moment ago */
    public function copies(): Collection
    {
        return CopiedFolder::query()->where('state', '!=', CopiedFolder::DONE)
            ->orWhere('updated_at', '>', now()->subMinutes(self::MINUTES_TOLD))
            ->orderBy('id')->get();
    }

    /** @return list<int> numbers of all that a search shows, on whichever page */
    public function all(string $find, string $show): array
    {
        return array_values(array_filter($this->query($find, $show)->pluck('id')->all(), is_int(...)));
    }

    /** @return Builder<Source> */
    private function query(string $find, string $show): Builder
    {
        $columns = ['name', 'folder', 'given_name', 'note'];
        $like = implode(' or ', array_map(fn (string $column): string => "$column like ? escape '\\'", $columns));

        return Source::query()->whereNull('belongs_to')
            ->when($find !== '' && FoundNames::isShort($find), fn (Builder $query) => $query
                ->where('id', '>', FoundNames::from(Source::everyOne()->max('id')))
                ->whereRaw("($like)", array_fill(0, count($columns), FoundNames::pattern($find))))
            ->when(! FoundNames::isShort($find), fn (Builder $query) => $query
                ->whereRaw('id in (select rowid from source_names where source_names match ?)', [FoundNames::phrase($find)]))
            ->when($show !== '', fn (Builder $query) => $this->narrow($query, $show));
    }

    /** @return array<string, array<string, string>> what can be shown alone, by group and by the value of the choice */
    public function kinds(): array
    {
        $distinct = fn (string $column, string $before): array => Track::query()->from(DB::raw("tracks indexed by tracks_{$before}s"))
            ->where('kind', 'sound')->whereNotNull($column)->distinct()
            ->orderBy($column)->limit(self::MOST_KINDS)->pluck($column)->filter(fn (mixed $one): bool => is_string($one))
            ->mapWithKeys(fn (string $one): array => ["$before:$one" => $one])->all();

        $groups = Group::query()->orderBy('title')->limit(self::MOST_GROUPS)->pluck('title', 'id')
            ->mapWithKeys(fn (mixed $title, int|string $id): array => ["group:$id" => is_string($title) ? $title : ''])->all();

        return ['' => self::KINDS, 'Group' => $groups, 'Codec' => $distinct('codec', 'codec'), 'Layout' => $distinct('layout', 'layout')];
    }

    /** @param  Builder<Source>  $query */
    private function narrow(Builder $query, string $show): void
    {
        [$kind, $value] = [...explode(':', $show, 2), ''];
        match ($kind) {
            'findings' => $query->whereNotNull('worst'),
            'stop' => $query->where('worst', 'stop'),
            'picture' => $query->whereNotNull('picture'),
            'sound' => $query->whereNull('picture')->where('state', SourceState::Ready),
            'group' => $query->where('group_id', (int) $value),
            'codec', 'layout' => $query->whereHas('tracks', fn (Builder $tracks) => $tracks->where('kind', 'sound')->where($kind, $value)),
            default => null,
        };
    }

    /**
     * @param  ListPage<Source>  $page
     * @return array<array-key, mixed> with the numbers of the sources on a page that are lines of a draft as keys
     */
    public function ticked(?Order $draft, ListPage $page): array
    {
        return $draft === null ? [] : $draft->lines()->whereIn('source_id', array_map(fn (Source $one): int => $one->id, $page->items))
            ->pluck('id', 'source_id')->all();
    }
}
