<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Database\ChangeMark;
use App\Settings\Queries\KeptFree;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Whoever asks again and again is told in one word that nothing is new (RFC 9110, 13.1.2), before anything is looked up. The tag is a
 * number that the database counts on whatever changes, and what else an answer depends on.
 */
final class NothingNew
{
    /** Answers tell of time that has passed in minutes at the finest. */
    private const SECONDS = 60;

    public function __construct(private readonly ChangeMark $mark, private readonly KeptFree $room) {}

    public function handle(Request $request, Closure $next, string $what): Response
    {
        $said = $request->session()->get('said');
        // What is said once is said now.
        if ($said !== null) {
            return $next($request);
        }
        // What a visitor has in hand, such as which draft, is on the page as well.
        $own = array_diff_key($request->session()->all(), ['_previous' => 1, '_flash' => 1]);
        $tag = '"'.hash('xxh128', implode("\0", [$this->mark->read($what), serialize($own), $this->room->says(), $request->fullUrl(),
            $request->headers->get('HX-Request', ''), (string) intdiv(now()->getTimestamp(), self::SECONDS)])).'"';
        if (in_array($tag, array_map(trim(...), explode(',', (string) $request->headers->get('If-None-Match'))), true)) {
            return new Response('', 304, ['ETag' => $tag]);
        }
        /** @var Response $response */
        $response = $next($request);
        if ($response->isOk()) {
            $response->headers->set('ETag', $tag);
            $response->headers->set('Cache-Control', 'private, no-cache');
        }

        return $response;
    }
}
