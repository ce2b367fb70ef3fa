<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Asf;

use Octavox\Core\Container\Wave\FormatChunk;

/** What the stream properties object of a sound stream says: section 3.3 of the specification. */
final readonly class AsfStream
{
    /**
     * @param  int  $number  1 to 127
     * @param  int  $span  blocks over which the bytes of an object are spread; 1 where they are in order
     * @param  int  $pieceBytes  of one spread piece
     */
    public function __construct(public int $number, public FormatChunk $format, public int $span, public int $pieceBytes) {}

    /** The bytes of an object in order: section 9.4, where piece n of block m was stored at n × span + m. */
    public function inOrder(string $data): string
    {
        if ($this->span < 2 || $this->pieceBytes < 1 || strlen($data) % ($this->span * $this->pieceBytes) !== 0) {
            return $data;
        }
        $pieces = str_split($data, $this->pieceBytes);
        $each = intdiv(count($pieces), $this->span);
        $whole = '';
        for ($block = 0; $block < $this->span; $block++) {
            for ($piece = 0; $piece < $each; $piece++) {
                $whole .= $pieces[$piece * $this->span + $block];
            }
        }

        return $whole;
    }
}
