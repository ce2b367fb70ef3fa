<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** The format has no such setting. */
final readonly class EncoderSetting extends Violation implements OfFormat
{
    public function __construct(public string $format, public string $setting) {}
}
