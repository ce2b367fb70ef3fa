<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\CopiedFolder;
use App\Models\Group;
use App\Models\Order;
use App\Models\Source;
use App\Models\Track;
use App\Values\SourceState;
use Illuminate\Contracts\Pagination\LengthAwarePaginator;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;

/** The sources that a page of the list shows. */
final class SourceList
{
    public const PER_PAGE = 60;

    /** What was copied in is told for so long. */
    private const MINUTES_TOLD = 3;

    private const MOST_KINDS = 50;

    private const MOST_GROUPS = 200;

    private const ORDERS = ['new' => ['created_at', 'desc'], 'name' => ['name', 'asc'], 'length' => ['seconds', 'desc'],
        'size' => ['bytes', 'desc'], 'container' => ['container', 'asc'], 'folder' => ['folder', 'asc']];

    /** What can be shown alone, beside codecs and layouts. */
    public const KINDS = ['findings' => 'with findings', 'stop' => 'that cannot be used', 'picture' => 'with a picture',
        'sound' => 'sound alone'];

    /** @return LengthAwarePaginator<int, Source> */
    public function page(string $find, string $order, string $show = ''): LengthAwarePaginator
    {
        [$column, $direction] = self::ORDERS[$order] ?? self::ORDERS['new'];

        return $this->query($find, $show)
            ->select(['id', 'name', 'folder', 'origin', 'state', 'container', 'bytes', 'seconds', 'picture', 'worst',
                'path', 'error_says', 'error_code', 'stated', 'same_as', 'created_at', 'note', 'given_name', 'group_id', 'belongs_to'])
            ->with(['tracks', 'group', 'companions'])
            ->orderBy($column, $direction)->orderByDesc('id')
            ->paginate(self::PER_PAGE)->withQueryString();
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
        $pattern = '%'.addcslashes($find, '%_\\').'%';
        $columns = ['name', 'folder', 'given_name', 'note'];
        $like = implode(' or ', array_map(fn (string $column): string => "$column like ? escape '\\'", $columns));

        return Source::query()->whereNull('belongs_to')
            ->when($find !== '', fn (Builder $query) => $query->whereRaw("($like)", array_fill(0, count($columns), $pattern)))
            ->when($show !== '', fn (Builder $query) => $this->narrow($query, $show));
    }

    /** @return array<string, array<string, string>> what can be shown alone, by group and by the value of the choice */
    public function kinds(): array
    {
        $distinct = fn (string $column, string $before): array => Track::query()->where('kind', 'sound')->whereNotNull($column)->distinct()
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
     * @param  LengthAwarePaginator<int, Source>  $page
     * @return array<array-key, mixed> with the numbers of the sources on a page that are lines of a draft as keys
     */
    public function ticked(?Order $draft, LengthAwarePaginator $page): array
    {
        return $draft === null ? [] : $draft->lines()->whereIn('source_id', $page->getCollection()->modelKeys())
            ->pluck('id', 'source_id')->all();
    }
}
