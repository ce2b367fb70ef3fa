<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Http\Exceptions\HttpResponseException;
use Illuminate\Http\JsonResponse;
use Octavox\Core\Failure;

/** What went wrong, for scripts: problem details after RFC 9457. */
final class Problem
{
    private const TYPE = 'application/problem+json';

    private const TITLES = [400 => 'Not understood', 401 => 'No token', 403 => 'Not allowed', 404 => 'Nothing there',
        405 => 'Not in that way', 409 => 'Not now', 410 => 'Gone', 413 => 'Too large', 415 => 'Of another type', 421 => 'Another server',
        422 => 'Cannot be taken', 429 => 'Too often', 500 => 'A mistake of Octavox', 503 => 'Busy', 507 => 'No room'];

    /**
     * @param  string  $code  stable, for programs
     * @param  string  $detail  one sentence, for people
     * @param  array<string, mixed>  $more  members of the document beside those of the standard
     */
    public static function respond(int $status, string $code, string $detail, array $more = []): JsonResponse
    {
        $document = ['type' => 'urn:octavox:problem:'.$code, 'title' => self::TITLES[$status] ?? 'Refused', 'status' => $status,
            'code' => $code, 'detail' => $detail] + $more;

        return response()->json($document, $status, ['Content-Type' => self::TYPE] + match ($status) {
            401 => ['WWW-Authenticate' => 'Bearer realm="Octavox"'],
            409, 429, 503 => ['Retry-After' => '1'],
            default => [],
        }, JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE);
    }

    public static function ofFailure(Failure $failure): JsonResponse
    {
        return self::respond(422, $failure->code(), $failure->getMessage());
    }

    /**
     * Ends the request with it.
     *
     * @param  array<string, mixed>  $more
     *
     * @throws HttpResponseException
     */
    public static function throw(int $status, string $code, string $detail, array $more = []): never
    {
        throw new HttpResponseException(self::respond($status, $code, $detail, $more));
    }
}
