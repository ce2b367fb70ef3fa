<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Http\Problem;
use App\Settings\Models\AccessToken;
use App\Settings\Values\AccessScope;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Lets in who shows a token that allows what is asked for. */
final class RequireToken
{
    public function handle(Request $request, Closure $next, string $scope): Response
    {
        $token = AccessToken::query()->where('hash', AccessToken::hashed((string) $request->bearerToken()))->first();
        if ($token === null) {
            return Problem::respond(401, 'no-token', 'This is only for holders of a token: make one on the page of settings and send it as '
                .'“Authorization: Bearer …”.');
        }
        $needed = AccessScope::from($scope);
        if (! $token->may($needed)) {
            return Problem::respond(403, 'not-allowed',
                sprintf('This token does not allow to %s; make one that does on the page of settings.',
                    $needed->label()), ['needs' => $needed->value]);
        }
        if ($token->used_at === null || $token->used_at < now()->subMinute()) {
            $token->update(['used_at' => now()]);
        }
        $request->attributes->set('token', $token->id);

        return $next($request);
    }
}
