<?php

declare(strict_types=1);

namespace App\Api;

use App\Http\RequestInput;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** A page of rows, newest first: `limit` says how many, `before` after which number it goes on. */
final class Page
{
    private const USUAL = 50;

    private const MOST = 200;

    /**
     * @template T of Model
     * @template B
     *
     * @param  Builder<T>  $query
     * @param  callable(T): array<string, mixed>|callable(T, B): array<string, mixed>  $shown
     * @param  ?callable(list<T>): array<int, B>  $beside  what is told beside each, asked for all of them at once, by number
     */
    public static function of(Request $request, Builder $query, callable $shown, ?callable $beside = null): JsonResponse
    {
        $limit = max(1, min(self::MOST, RequestInput::number($request, 'limit', self::USUAL)));
        $before = RequestInput::number($request, 'before');
        // A bound in any case: the number is gone along from there, whatever other index there is.
        $rows = $query->where('id', '<', $before > 0 ? $before : PHP_INT_MAX)->orderByDesc('id')->limit($limit + 1)->get();
        $page = $rows->take($limit);
        /** @var ?Model $last */
        $last = $page->last();
        $next = $rows->count() > $limit && $last !== null
            ? $request->url().'?'.http_build_query(['before' => $last->getKey()] + $request->query->all()) : null;

        /** @var list<T> $models */
        $models = array_values($page->all());
        $more = $beside === null ? [] : $beside($models);

        $items = [];
        foreach ($models as $one) {
            $key = $one->getKey();
            $items[] = is_int($key) && isset($more[$key]) ? $shown($one, $more[$key]) : $shown($one);
        }

        return self::items($items, $next);
    }

    /** @param  list<array<string, mixed>>  $items */
    public static function items(array $items, ?string $next = null): JsonResponse
    {
        return self::document(['items' => $items, 'next' => $next], 200, $next === null ? [] : ['Link' => "<$next>; rel=\"next\""]);
    }

    /**
     * @param  array<string, mixed>  $document
     * @param  array<string, string>  $headers
     */
    public static function document(array $document, int $status = 200, array $headers = []): JsonResponse
    {
        return response()->json($document, $status, $headers + ['Cache-Control' => 'no-store'], JSON_UNESCAPED_SLASHES
            | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION | JSON_INVALID_UTF8_SUBSTITUTE);
    }
}
