<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ogg;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;

/** The header of one page: RFC 3533, 6. */
final readonly class Page
{
    public const CONTINUED = 1;

    public const FIRST = 2;

    public const LAST = 4;

    private const HEADER = 27;

    /** 255 segments of 255 bytes and the header. */
    public const MOST_BYTES = 65_307;

    private function __construct(public int $at, public int $flags, public int $granule, public int $serial, public int $sequence,
        public string $table) {}

    /**
     * Null where no page begins there, or one that is cut.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function read(Window $window, int $at, int $end): ?self
    {
        if ($at + self::HEADER > $end) {
            return null;
        }
        $head = $window->read($at, self::HEADER);
        if (! str_starts_with($head, "OggS\0")) {
            return null;
        }
        /** @var array{f: int, g: int, s: int, q: int, n: int} $fields */
        $fields = unpack('x5/Cf/Pg/Vs/Vq/x4/Cn', $head);
        if ($at + self::HEADER + $fields['n'] > $end) {
            return null;
        }
        $page = new self($at, $fields['f'], $fields['g'], $fields['s'], $fields['q'], $window->read($at + self::HEADER, $fields['n']));

        return $page->end() > $end ? null : $page;
    }

    public function bodyAt(): int
    {
        return $this->at + self::HEADER + strlen($this->table);
    }

    public function end(): int
    {
        return $this->bodyAt() + $this->bodyBytes();
    }

    public function bodyBytes(): int
    {
        return array_sum(array_map(ord(...), str_split($this->table)));
    }

    public function is(int $flag): bool
    {
        return ($this->flags & $flag) !== 0;
    }

    /**
     * Bytes of the pieces of packets in it; the last goes on in the next page where $complete turns out false.
     *
     * @return list<int>
     */
    public function pieces(bool &$complete): array
    {
        $pieces = [];
        $length = 0;
        $complete = true;
        for ($index = 0, $count = strlen($this->table); $index < $count; $index++) {
            $part = ord($this->table[$index]);
            $length += $part;
            $complete = $part < 255;
            if ($complete) {
                $pieces[] = $length;
                $length = 0;
            }
        }
        if (! $complete) {
            $pieces[] = $length;
        }

        return $pieces;
    }
}
