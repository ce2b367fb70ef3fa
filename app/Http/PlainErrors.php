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
        400 => 'This was asked in a way that cannot be understood; nothing was changed. Go back and try again.',
        401 => 'This is not open to you; go back to where you came from.',
        403 => 'This is not open to you; go back to where you came from.',
        405 => 'This address cannot be used in that way; nothing was changed. Go back and try again.',
        404 => 'There is nothing at this address; it may have been taken away, or the address was cut when it was copied.',
        419 => 'This page was open for so long that its form is no longer valid; nothing was changed. Load it again and repeat the last '
            .'step.',
        421 => 'Octavox answers only under its own name; open it at the address that it prints when it starts.',
        422 => 'Something in this form cannot be taken as it is; nothing was changed. Go back and try again.',
        429 => 'That was asked too often; wait a moment and try again.',
        503 => 'Octavox is busy at the moment; nothing was lost. Try again in a few seconds.',
        507 => 'The drive is full, so this could not be kept; free some space and try again. What arrived before is still there.',
        410 => 'What was being brought in here is gone; choose the file again.',
        413 => 'This file is larger than what is taken in here; nothing was kept of it.',
    ];

    public static function register(Exceptions $exceptions): void
    {
        $exceptions->render(fn (OutsideShelf $outside, Request $request): Response => self::page(404, $outside->getMessage()));
        $exceptions->render(function (\Throwable $error, Request $request): ?Response {
            if ($error instanceof HttpExceptionInterface) {
                $status = $error->getStatusCode();

                return self::page($status, self::SENTENCES[$status] ?? ($status < 500 ? self::SENTENCES[400] : self::SENTENCES[503]));
            }

            return config('app.debug') || app()->runningUnitTests() ? null
                : self::page(500,
                    'Octavox made a mistake of its own. Nothing was lost; go back and try again, and report it if it happens twice.');
        });
    }

    private static function page(int $status, string $sentence): Response
    {
        return response()->view('error', ['status' => $status, 'sentence' => $sentence], $status);
    }
}
