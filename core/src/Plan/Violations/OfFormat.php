<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

/** A value of the format itself was asked for that it does not have, whatever the source is. */
interface OfFormat {}
