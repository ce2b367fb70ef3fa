<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Asf;

use Octavox\Core\Container\BitmapHeader;

/** What the stream properties object of a picture stream says: section 9.2 of the specification. */
final readonly class AsfPicture
{
    /** @param  int  $number  1 to 127 */
    public function __construct(public int $number, public BitmapHeader $bitmap) {}
}
