<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Order;
use App\Models\Source;
use Illuminate\Contracts\Pagination\LengthAwarePaginator;

/** The sources that a page of the list shows. */
final class SourceList
{
    public const PER_PAGE = 60;

    private const ORDERS = ['new' => ['created_at', 'desc'], 'name' => ['name', 'asc'], 'length' => ['seconds', 'desc'],
        'size' => ['bytes', 'desc']];

    /** @return LengthAwarePaginator<int, Source> */
    public function page(string $find, string $order): LengthAwarePaginator
    {
        [$column, $direction] = self::ORDERS[$order] ?? self::ORDERS['new'];
        $pattern = '%'.addcslashes($find, '%_\\').'%';

        return Source::query()
            ->select(['id', 'name', 'folder', 'origin', 'state', 'container', 'bytes', 'seconds', 'picture', 'worst',
                'error_says', 'same_as', 'created_at'])
            ->with('tracks')
            ->when($find !== '',
                fn ($query) => $query->whereRaw("(name like ? escape '\\' or folder like ? escape '\\')", [$pattern, $pattern]))
            ->orderBy($column, $direction)->orderByDesc('id')
            ->paginate(self::PER_PAGE)->withQueryString();
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
