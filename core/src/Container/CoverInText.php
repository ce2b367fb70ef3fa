<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

/** A kind of file that holds its picture as text, in base 64 (RFC 4648, 4): four bytes for each three. */
interface CoverInText {}
