<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** Its last part announces more bytes than there are. */
final readonly class EndsWithinPart implements FindingKind {}
