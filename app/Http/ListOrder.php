<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Http\Request;

/** By what a visitor wants the list of sources ordered: as it was asked for last. */
final class ListOrder
{
    public const NEWEST = 'new';

    private const KEPT_AS = 'sources_by';

    public static function read(Request $request): string
    {
        $asked = RequestInput::text($request, 'by');
        if (preg_match('/^[a-z]{1,20}$/D', $asked) === 1) {
            $request->session()->put(self::KEPT_AS, $asked);
        }
        $kept = $request->session()->get(self::KEPT_AS);
        $order = is_string($kept) ? $kept : self::NEWEST;
        // Links to the pages before and after say it as well.
        $request->query->set('by', $order);

        return $order;
    }
}
