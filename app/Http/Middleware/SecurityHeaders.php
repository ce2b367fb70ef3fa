<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Http\AnswerHeaders;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\Response;

/**
 * What every answer tells a browser: to run nothing but our own scripts, to show us in no other page, to guess no types, to share nothing.
 */
final class SecurityHeaders
{
    public function handle(Request $request, Closure $next): Response
    {
        $response = $next($request);
        foreach (AnswerHeaders::ALL as $name => $value) {
            $response->headers->set($name, $value);
        }
        foreach (match (true) {
            $request->routeIs('page') => AnswerHeaders::FRAMING,
            $request->routeIs('page.preview') => AnswerHeaders::FRAMED,
            default => [],
        } as $name => $value) {
            $response->headers->set($name, $value);
        }
        header_remove('X-Powered-By');
        if ($response instanceof BinaryFileResponse) {
            $response->setPrivate();
        }

        return $response;
    }
}
