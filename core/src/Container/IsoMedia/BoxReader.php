<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\BrokenStructure;

/** Walks boxes without reading their content; depth, count and size are bounded. */
final class BoxReader
{
    /** Boxes of one file; a two-hour recording in fragments of one second has some 50,000. */
    private const MOST_BOXES = 2_000_000;

    /** Content that is read whole, such as a cover picture. */
    private const MOST_CONTENT = 32 * 1024 * 1024;

    private int $seen = 0;

    public function __construct(public readonly ByteSource $bytes) {}

    /**
     * @return iterable<Box> the boxes of the file itself; the last may be cut
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function top(): iterable
    {
        return $this->between(0, $this->bytes->size(), true);
    }

    /**
     * @param  int  $skip  bytes of the box's own before its children
     * @return iterable<Box>
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function children(Box $box, int $skip = 0): iterable
    {
        return $this->between($box->bodyAt + $skip, $box->end, false);
    }

    /**
     * The first child of the name, found along a path such as `mdia/minf`.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function find(Box $box, string $path): ?Box
    {
        foreach (explode('/', $path) as $type) {
            $found = null;
            foreach ($this->children($box) as $child) {
                if ($child->type === $type) {
                    $found = $child;
                    break;
                }
            }
            if ($found === null) {
                return null;
            }
            $box = $found;
        }

        return $box;
    }

    /**
     * @throws BrokenStructure where it is too large to be meant
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function content(Box $box): Cursor
    {
        return new Cursor($this->contentBytes($box), $this->bytes->name(), $box->bodyAt);
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function contentBytes(Box $box): string
    {
        if ($box->bodyLength() > self::MOST_CONTENT) {
            throw BrokenStructure::at($this->bytes->name(), $box->at,
                sprintf('a part of %s bytes stands where a small one belongs', number_format($box->bodyLength())));
        }

        return $this->bytes->read($box->bodyAt, $box->bodyLength());
    }

    /**
     * The first $length bytes of the content, fewer where it is shorter.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function head(Box $box, int $length): Cursor
    {
        return new Cursor($this->bytes->read($box->bodyAt, min($length, $box->bodyLength())), $this->bytes->name(), $box->bodyAt);
    }

    /**
     * @return iterable<Box>
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function between(int $at, int $end, bool $top): iterable
    {
        while ($at + 8 <= $end) {
            if (++$this->seen > self::MOST_BOXES) {
                throw BrokenStructure::at($this->bytes->name(), $at, 'it is divided into more parts than any recording has');
            }
            $head = new Cursor($this->bytes->read($at, min(16, $end - $at)), $this->bytes->name(), $at);
            $size = $head->u32be();
            $type = $head->take(4);
            $header = 8;
            if ($size === 1) {
                $size = $head->u64be();
                $header = 16;
            } elseif ($size === 0) {
                $size = $end - $at;
                if (! $top) {
                    // QuickTime ends some lists with a zero.
                    return;
                }
            }
            if ($size < $header) {
                if ($top) {
                    return;
                }
                throw BrokenStructure::at($this->bytes->name(), $at, 'a part announces less than its own header');
            }
            if ($size > $end - $at) {
                if (! $top) {
                    throw BrokenStructure::at($this->bytes->name(), $at,
                        sprintf('a part announces %s bytes where only %s are left', number_format($size), number_format($end - $at)));
                }
                yield new Box($type, $at, $at + $header, $end, true);

                return;
            }
            yield new Box($type, $at, $at + $header, $at + $size);
            $at += $size;
        }
    }
}
