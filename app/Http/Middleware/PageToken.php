<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;

/** Asks for the token that stands in every page. */
final class PageToken extends ValidateCsrfToken
{
    protected $addHttpCookie = false;

    /** The token follows from the session's own secret name, so that pages work where no session can be written down: on a full drive. */
    public function handle($request, \Closure $next)
    {
        $request->session()->put('_token', substr(hash_hmac('sha256', $request->session()->getId(), config()->string('app.key')), 0, 40));

        return parent::handle($request, $next);
    }
}
