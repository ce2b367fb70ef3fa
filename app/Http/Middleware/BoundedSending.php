<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Processes\FileLock;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\ServiceUnavailableHttpException;

/**
 * Leaves processes for pages however many ask for long answers and read them slowly, or not at all: only so many are sent at once, and to
 * one visitor fewer than all. Whoever comes when all are taken is told when to ask again, as browsers, players and scripts do.
 */
final class BoundedSending
{
    /** Of fourteen processes of the web server (`Supervisor::WEB_WORKERS`); listeners to events hold at most three more. */
    private const MOST_AT_ONCE = 8;

    /** As many connections as a browser opens to one server. */
    private const MOST_OF_ONE_VISITOR = 6;

    /** What the system takes at once from whoever writes to a connection that nobody reads; such an answer holds up no process. */
    private const SHORT_BYTES = 1 << 18;

    public const SECONDS_TO_WAIT = 2;

    private const OWN_BOUND = 'text/event-stream';

    /** Addresses of `routes/files.php` that are answered with sound or pictures; scripts are told in their own way. */
    private const LONG = '#^/(?!api/).*/(media|sound|file|hear/\d+|hear)$#D';

    /**
     * Whether something that is asked for would be refused in any case: seen before the application begins, so that hundreds at once cost
     * no more than a look at fourteen files.
     *
     * @param  string  $visitor  see `visitor`
     * @param  string  $locks  folder
     */
    public static function isRefused(string $path, string $visitor, string $locks): bool
    {
        return preg_match(self::LONG, $path) === 1 && (self::areTaken("$locks/sending-$visitor", self::MOST_OF_ONE_VISITOR)
            || self::areTaken("$locks/sending", self::MOST_AT_ONCE));
    }

    /**
     * Two people behind one address are two once they have a session.
     *
     * @param  mixed  $session  cookie
     */
    public static function visitor(string $address, mixed $session): string
    {
        return hash('xxh3', $address.(is_string($session) ? $session : ''));
    }

    private static function areTaken(string $name, int $count): bool
    {
        for ($number = 1; $number <= $count; $number++) {
            $handle = @fopen("$name-$number", 'r');
            if ($handle === false || flock($handle, LOCK_SH | LOCK_NB)) {
                return false;
            }
        }

        return true;
    }

    /** @throws ServiceUnavailableHttpException */
    public function handle(Request $request, Closure $next): Response
    {
        // As it was sent: what answers may have read the cookie's contents since.
        $visitor = self::visitor((string) $request->ip(), $request->cookies->get(config()->string('session.cookie')));
        $response = $next($request);
        if (! $request->isMethod('HEAD') && $this->isLong($response)) {
            $held = [FileLock::takeOne("sending-$visitor", self::MOST_OF_ONE_VISITOR), FileLock::takeOne('sending', self::MOST_AT_ONCE)];
            if (in_array(null, $held, true)) {
                array_map(fn (?FileLock $lock) => $lock?->release(), $held);
                throw new ServiceUnavailableHttpException(self::SECONDS_TO_WAIT, 'As much is being sent as can be at once.');
            }
            app()->terminating(fn () => array_map(fn (FileLock $lock) => $lock->release(), $held));
        }

        return $response;
    }

    private function isLong(Response $response): bool
    {
        $content = $response->getContent();
        $length = $response->headers->get('Content-Length') ?? ($content === false ? null : strlen($content));

        return ($length === null || (int) $length > self::SHORT_BYTES)
            && ! str_starts_with((string) $response->headers->get('Content-Type'), self::OWN_BOUND);
    }
}
