<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Plan\Violation;

/** There is no track in that language. */
final readonly class NoLanguage extends Violation
{
    /** @param  list<string>  $nearest  languages that are there; an empty one stands for one that is not stated */
    public function __construct(public string $language, public array $nearest = []) {}
}
