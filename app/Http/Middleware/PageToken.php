<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;

/** Asks for the token that stands in every page. */
final class PageToken extends ValidateCsrfToken
{
    protected $addHttpCookie = false;
}
