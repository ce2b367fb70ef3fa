<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ogg;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;

/** Goes through the packets of one logical stream, page after page; what is lost between pages is left out. */
final class PacketWalk
{
    public const SPAN = 262_144;

    /** A packet that spreads over more is damage. */
    private const MOST_PACKET = 16 * 1024 * 1024;

    /**
     * @return iterable<array{string, int}> each packet, and the granule position of its page where it is the last that ends there, else −1
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function over(ByteSource $bytes, int $at, int $end, int $serial): iterable
    {
        $window = new Window($bytes, $end, self::SPAN);
        $held = '';
        $within = false;
        while ($at < $end) {
            $page = Page::read($window, $at, $end);
            if ($page === null) {
                $at = self::find($window, $at + 1, $end);
                $within = false;
                $held = '';

                continue;
            }
            $at = $page->end();
            if ($page->serial !== $serial) {
                continue;
            }
            $complete = true;
            $pieces = $page->pieces($complete);
            $body = $pieces === [] ? '' : $window->read($page->bodyAt(), $page->bodyBytes());
            $place = 0;
            $last = count($pieces) - ($complete ? 1 : 2);
            foreach ($pieces as $index => $length) {
                $piece = substr($body, $place, $length);
                $place += $length;
                if ($index === 0 && $page->is(Page::CONTINUED)) {
                    if (! $within) {
                        continue;
                    }
                    $piece = $held.$piece;
                }
                $held = '';
                $within = false;
                if ($index > $last) {
                    $held = strlen($piece) > self::MOST_PACKET ? '' : $piece;
                    $within = strlen($piece) <= self::MOST_PACKET;
                } else {
                    yield [$piece, $index === $last ? $page->granule : -1];
                }
            }
        }
    }

    /**
     * Where the next page begins, or the end.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function find(Window $window, int $at, int $end): int
    {
        while ($at < $end) {
            $length = min(PacketWalk::SPAN, $end - $at);
            $place = strpos($window->read($at, $length), 'OggS');
            if ($place !== false) {
                return $at + $place;
            }
            $at += max(1, $length - 3);
            if ($length <= 3) {
                return $end;
            }
        }

        return $end;
    }
}
