<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

/** Numbers of a buffer as the rows of a matrix. */
final readonly class Rows
{
    /**
     * @param  int  $offset  of the first number
     * @param  int  $stride  numbers from the start of one row to that of the next
     * @param  int  $length  numbers of a row
     */
    public function __construct(public FloatBuffer $buffer, public int $offset, public int $stride, public int $count,
        public int $length) {}
}
