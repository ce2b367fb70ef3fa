<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Container\RemarkWeight;

/** One thing that stands in the way or is worth knowing, in one sentence, with what to do. */
final readonly class Finding
{
    public function __construct(public string $code, public RemarkWeight $level, public string $says, public string $remedy)
    {
    }

    /** @return array{code: string, level: string, says: string, remedy: string} */
    public function toArray(): array
    {
        return ['code' => $this->code, 'level' => $this->level->value, 'says' => $this->says, 'remedy' => $this->remedy];
    }
}
