<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\StatedAs;

/** One title of a video disc, written `title:2`. */
final readonly class StatedTitle implements StatedAs
{
    public function __construct(public int $number) {}

    /** Null where the words mean something else. */
    public static function parse(string $text): ?self
    {
        return preg_match('/^title:(\d{1,2})$/', $text, $parts) === 1 ? new self((int) $parts[1]) : null;
    }

    /** What a recording of it is called: after the image, or after the folder of the disc. */
    public function name(string $path): string
    {
        return sprintf('%s, title %d.%s', self::discName($path), $this->number, pathinfo($path, PATHINFO_EXTENSION));
    }

    /** What a disc is called by its path. */
    public static function discName(string $path): string
    {
        $parts = array_reverse(explode('/', $path));
        $called = match (true) {
            strtoupper($parts[0]) !== DiscFolder::FIRST => pathinfo($path, PATHINFO_FILENAME),
            strtoupper($parts[1] ?? '') === 'VIDEO_TS' => $parts[2] ?? '',
            default => $parts[1] ?? '',
        };

        return $called === '' ? 'Disc' : $called;
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return VideoDisc::open($bytes)->media($this->number);
    }

    public function __toString(): string
    {
        return 'title:'.$this->number;
    }
}
