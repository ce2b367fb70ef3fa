<?php

declare(strict_types=1);

namespace App\Http;

use App\Files\OutsideShelf;
use Illuminate\Database\QueryException;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Http\Request;
use Illuminate\Queue\MaxAttemptsExceededException;
use Octavox\Core\Failure;
use Octavox\Core\Make\Interrupted;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Symfony\Component\HttpKernel\Exception\ServiceUnavailableHttpException;

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

    private const CODES = [400 => 'not-understood', 404 => 'nothing-there', 405 => 'not-that-way', 410 => 'gone', 413 => 'too-large',
        421 => 'another-server', 503 => 'busy', 507 => 'no-space'];

    /** Result codes of SQLite: SQLITE_BUSY, SQLITE_LOCKED, SQLITE_FULL. */
    private const BUSY = 5;

    private const LOCKED = 6;

    private const FULL = 13;

    private const SECONDS_TO_WAIT = 10;

    private const MISTAKE =
        'Octavox made a mistake of its own. Nothing was lost; go back and try again, and report it if it happens twice.';

    public static function register(Exceptions $exceptions): void
    {
        $exceptions->render(fn (OutsideShelf $outside, Request $request): Response => $request->is('api/*')
            ? Problem::respond(404, 'outside-shelf', $outside->getMessage()) : self::page(404, $outside->getMessage()));
        $exceptions->map(fn (QueryException $error): \Throwable => self::ofDatabase($error));
        // None is a mistake of the program: who asked is told, and a log on a full drive would only fail as well; what was interrupted is
        // begun again, or said of the source.
        $exceptions->dontReport([ServiceUnavailableHttpException::class, NoRoom::class, Interrupted::class,
            MaxAttemptsExceededException::class]);
        $exceptions->render(function (\Throwable $error, Request $request): ?Response {
            if ($request->is('api/*')) {
                return self::problem($error);
            }
            if ($error instanceof HttpExceptionInterface) {
                $status = $error->getStatusCode();

                return self::page($status, self::SENTENCES[$status] ?? ($status < 500 ? self::SENTENCES[400] : self::SENTENCES[503]),
                    $error->getHeaders());
            }

            return config('app.debug') || app()->runningUnitTests() ? null
                : self::page(500, self::MISTAKE);
        });
    }

    /** The same for scripts; null where a test wants to see the mistake itself. */
    private static function problem(\Throwable $error): ?Response
    {
        if ($error instanceof Failure) {
            return Problem::ofFailure($error);
        }
        if ($error instanceof HttpExceptionInterface) {
            $status = $error->getStatusCode();

            return Problem::respond($status, self::CODES[$status] ?? 'refused',
                self::SENTENCES[$status] ?? self::SENTENCES[$status < 500 ? 400 : 503])->withHeaders($error->getHeaders());
        }

        return config('app.debug') || app()->runningUnitTests() ? null : Problem::respond(500, 'internal', self::MISTAKE);
    }

    /** What SQLite says in words of HTTP: locked for longer than anybody waits, or no room left for a row. */
    private static function ofDatabase(QueryException $error): \Throwable
    {
        return match ($error->errorInfo[1] ?? null) {
            self::BUSY, self::LOCKED => new ServiceUnavailableHttpException(self::SECONDS_TO_WAIT, 'The database is locked.', $error),
            self::FULL => new NoRoom($error),
            default => $error,
        };
    }

    /** @param  array<array-key, mixed>  $headers */
    private static function page(int $status, string $sentence, array $headers = []): Response
    {
        return response()->view('error', ['status' => $status, 'sentence' => $sentence], $status, $headers);
    }
}
