<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Settings\Values\TrustedHosts;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpException;

/**
 * Answers only under this server's own names: a page of somebody else's must neither reach Octavox under another name nor send it forms.
 */
final class TrustedOrigins
{
    public function __construct(private readonly TrustedHosts $names) {}

    /**
     * @throws HttpException
     */
    public function handle(Request $request, Closure $next): Response
    {
        if (! $this->names->host((string) $request->headers->get('Host', ''))) {
            throw new HttpException(421);
        }
        if (! $request->isMethodSafe()) {
            $origin = $request->headers->get('Origin');
            $site = $request->headers->get('Sec-Fetch-Site', '');
            if ($origin !== null && ! $this->names->origin($origin) || in_array($site, ['cross-site', 'same-site'], true)) {
                throw new HttpException(403);
            }
        }

        return $next($request);
    }
}
