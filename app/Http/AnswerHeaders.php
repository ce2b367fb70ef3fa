<?php

declare(strict_types=1);

namespace App\Http;

/** Headers of every answer, of pages as of files; the router of the server gives them too. */
final class AnswerHeaders
{
    public const ALL = [
        'Content-Security-Policy' => "default-src 'none'; script-src 'self'; style-src 'self'; style-src-attr 'unsafe-inline'; "
            ."img-src 'self' data:; media-src 'self'; "
            ."font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'",
        'X-Content-Type-Options' => 'nosniff',
        'X-Frame-Options' => 'DENY',
        'Referrer-Policy' => 'same-origin',
        'Cross-Origin-Resource-Policy' => 'same-origin',
        'Cross-Origin-Opener-Policy' => 'same-origin',
        'Permissions-Policy' => 'camera=(), microphone=(), geolocation=()',
    ];

    /** Of the page that shows another one of ours within itself: a page with a player, before it is made. */
    public const FRAMING = ['Content-Security-Policy' => self::ALL['Content-Security-Policy']."; frame-src 'self'"];

    /** Of that other page: everything is in it, and nobody else shows it. */
    public const FRAMED = [
        'Content-Security-Policy' => "default-src 'none'; media-src 'self'; img-src data:; style-src 'unsafe-inline'; "
            ."script-src 'unsafe-inline'; base-uri 'none'; form-action 'none'; frame-ancestors 'self'",
        'X-Frame-Options' => 'SAMEORIGIN',
    ];
}
