<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** A cut of kept packets that is exact to the sample. */
final readonly class CutExact implements StepKind {}
