<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/** It has no sound. */
final readonly class NoSound implements FindingKind {}
