<?php

declare(strict_types=1);

namespace App\Http;

use App\Values\OutsideShelf;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;

/** Whatever goes wrong, people see one plain page: what happened, what it means, what to do. */
final class PlainErrors
{
    private const SENTENCES = [
        403 => 'This is not open to you; go back to where you came from.',
        404 => 'There is nothing at this address; it may have been taken away, or the address was cut when it was copied.',
        419 => 'This page was open for so long that its form is no longer valid; nothing was changed. Load it again and repeat the last step.',
        413 => 'This file is larger than what is taken in here; nothing was kept of it.',
    ];

    public static function register(Exceptions $exceptions): void
    {
        $exceptions->render(fn (OutsideShelf $outside, Request $request): Response => self::page(404, $outside->getMessage()));
        $exceptions->render(function (\Throwable $error, Request $request): ?Response {
            if ($error instanceof HttpExceptionInterface) {
                $status = $error->getStatusCode();

                return isset(self::SENTENCES[$status]) ? self::page($status, self::SENTENCES[$status]) : null;
            }

            return config('app.debug') || app()->runningUnitTests() ? null : self::page(500, 'Octavox made a mistake of its own. Nothing was lost; go back and try again, and report it if it happens twice.');
        });
    }

    private static function page(int $status, string $sentence): Response
    {
        return response()->view('error', ['status' => $status, 'sentence' => $sentence], $status);
    }
}
