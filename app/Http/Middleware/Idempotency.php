<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Files\Folder;
use App\Http\AnsweredRequest;
use App\Http\Problem;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** A request that is sent again with the same idempotency key is answered as before, and nothing is done twice. */
final class Idempotency
{
    private const LONGEST_KEY = 255;

    private const KEPT_HEADERS = ['Content-Type', 'Location'];

    public function handle(Request $request, Closure $next): Response
    {
        $key = (string) $request->headers->get('Idempotency-Key', '');
        if ($key === '') {
            return $next($request);
        }
        if (strlen($key) > self::LONGEST_KEY) {
            return Problem::respond(400, 'key-too-long', 'An idempotency key has at most 255 characters; nothing was done.');
        }
        $token = $request->attributes->get('token');
        $mark = hash('sha256', (is_int($token) ? $token : 0)."\0".$key);
        $asked = hash('sha256', implode("\0", [$request->method(), $request->fullUrl(), $request->headers->get('Upload-Length', ''),
            $request->headers->get('Upload-Metadata', ''), $request->getContent()]));
        $folder = config()->string('octavox.home').'/locks';
        Folder::ready($folder);
        // The second of two that come at once waits for the first; a lock goes with the process that holds it, whatever befalls that.
        $lock = fopen($folder.'/'.substr($mark, 0, 2), 'c');
        if ($lock === false || ! flock($lock, LOCK_EX)) {
            return Problem::respond(503, 'at-work', 'The same request is being worked on; ask again in a moment.');
        }
        $known = AnsweredRequest::query()->where('mark', $mark)->first();
        if ($known !== null) {
            return $known->asked === $asked ? response($known->body, $known->status, $known->headers + ['Idempotent-Replayed' => 'true'])
                : Problem::respond(422, 'key-of-another',
                    'This idempotency key was used for another request before; use a new one. Nothing was done.');
        }
        $request->attributes->set('mark', $mark);
        $response = $next($request);
        if ($response->isSuccessful()) {
            $headers = array_filter(array_map(fn (string $name): ?string => $response->headers->get($name),
                array_combine(self::KEPT_HEADERS, self::KEPT_HEADERS)));
            AnsweredRequest::query()->create(['mark' => $mark, 'asked' => $asked, 'status' => $response->getStatusCode(),
                'headers' => $headers, 'body' => (string) $response->getContent()]);
        }

        return $response;
    }
}
