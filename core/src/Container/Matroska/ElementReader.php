<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Container\BrokenStructure;

/** Walks EBML elements without reading their bodies; count and size are bounded. RFC 8794. */
final class ElementReader
{
    private const MOST_ELEMENTS = 20_000_000;

    private const MOST_CONTENT = 32 * 1024 * 1024;

    private readonly Window $window;

    private int $seen = 0;

    /** @param  int  $span  bytes to fetch at once: few where most is jumped over */
    public function __construct(public readonly ByteSource $bytes, int $span = 4096)
    {
        $this->window = new Window($bytes, $bytes->size(), $span);
    }

    /**
     * The element there; null at the end, or where none can be.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function at(int $at, int $end): ?Element
    {
        if ($at + 2 > $end) {
            return null;
        }
        if (++$this->seen > self::MOST_ELEMENTS) {
            throw BrokenStructure::at($this->bytes->name(), $at, 'it is divided into more parts than any recording has');
        }
        $head = $this->window->read($at, min(12, $end - $at));
        $idLength = self::width($head[0]);
        if ($idLength > 4 || strlen($head) < $idLength + 1) {
            return null;
        }
        $id = 0;
        for ($index = 0; $index < $idLength; $index++) {
            $id = $id << 8 | ord($head[$index]);
        }
        $sizeLength = self::width($head[$idLength]);
        if ($sizeLength > 8 || strlen($head) < $idLength + $sizeLength) {
            return null;
        }
        $size = ord($head[$idLength]) & (0xFF >> $sizeLength);
        $open = $size === 0xFF >> $sizeLength;
        for ($index = 1; $index < $sizeLength; $index++) {
            $byte = ord($head[$idLength + $index]);
            $open = $open && $byte === 0xFF;
            $size = $size << 8 | $byte;
        }
        $body = $at + $idLength + $sizeLength;

        return new Element($id, $at, $body, $open || $size > $end - $body ? $end : $body + $size, $open);
    }

    /**
     * @return iterable<Element>
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function children(Element $element): iterable
    {
        $at = $element->bodyAt;
        while (($child = $this->at($at, $element->end)) !== null) {
            yield $child;
            $at = $child->end;
        }
    }

    /**
     * The first child of the identity.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function find(Element $element, int $id): ?Element
    {
        foreach ($this->children($element) as $child) {
            if ($child->id === $id) {
                return $child;
            }
        }

        return null;
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function content(Element $element): string
    {
        if ($element->length() > self::MOST_CONTENT) {
            throw BrokenStructure::at($this->bytes->name(), $element->at,
                sprintf('a part of %s bytes stands where a small one belongs', number_format($element->length())));
        }

        return $this->bytes->read($element->bodyAt, $element->length());
    }

    /**
     * @param  int  $length  bytes from the body's begin, fewer where it is shorter
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function head(Element $element, int $length): string
    {
        return $this->window->read($element->bodyAt, min($length, $element->length()));
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function number(Element $element): int
    {
        $value = 0;
        foreach (str_split($this->head($element, min(8, $element->length()))) as $byte) {
            $value = $value << 8 | ord($byte);
        }

        return $value & PHP_INT_MAX;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function signed(Element $element): int
    {
        $bits = 8 * min(8, $element->length());
        $value = 0;
        foreach (str_split($this->head($element, 8)) as $byte) {
            $value = $value << 8 | ord($byte);
        }

        return $bits > 0 && $bits < 64 && $value >= 1 << $bits - 1 ? $value - (1 << $bits) : $value;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function real(Element $element): float
    {
        $bytes = $this->head($element, 8);
        $value = match (strlen($bytes)) {
            4 => unpack('G', $bytes),
            8 => unpack('E', $bytes),
            default => false,
        };

        return is_array($value) && is_float($value[1]) && is_finite($value[1]) ? $value[1] : 0.0;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function text(Element $element): string
    {
        return $element->length() > 65_536 ? '' : mb_scrub(rtrim($this->bytes->read($element->bodyAt, $element->length()), "\0"), 'UTF-8');
    }

    /** Bytes of a number of variable length, from its first byte: the zeros before the first one, and one. */
    private static function width(string $byte): int
    {
        $value = ord($byte);

        return match (true) {
            $value >= 0x80 => 1,
            $value >= 0x40 => 2,
            $value >= 0x20 => 3,
            $value >= 0x10 => 4,
            $value >= 0x08 => 5,
            $value >= 0x04 => 6,
            $value >= 0x02 => 7,
            $value === 0x01 => 8,
            default => 9,
        };
    }

    /**
     * A number of variable length within a string.
     *
     * @return array{int, int} value, bytes; bytes 0 where it is cut
     */
    public static function variable(string $bytes, int $at): array
    {
        $length = isset($bytes[$at]) ? self::width($bytes[$at]) : 9;
        if ($length > 8 || strlen($bytes) < $at + $length) {
            return [0, 0];
        }
        $value = ord($bytes[$at]) & (0xFF >> $length);
        for ($index = 1; $index < $length; $index++) {
            $value = $value << 8 | ord($bytes[$at + $index]);
        }

        return [$value, $length];
    }
}
