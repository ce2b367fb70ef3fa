<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/** Compressed sound is compressed with loss a second time. */
final readonly class LossyAgain implements StepKind {}
