<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Media\Severity;

/** One thing that stands in the way or is worth knowing, in one sentence, with what to do. */
final readonly class Finding
{
    /**
     * @param  array<string, string>  $shaping  what of the shaping the remedy fills in: `layout`, `level`; empty where it is no shaping
     * @param  ?int  $track  number of the sound track that it is about, null where it is about the whole source
     */
    public function __construct(public string $code, public Severity $level, public string $says, public string $remedy,
        public array $shaping = [], public ?int $track = null)
    {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return array_filter(['code' => $this->code, 'level' => $this->level->value, 'says' => $this->says, 'remedy' => $this->remedy,
            'shaping' => $this->shaping, 'track' => $this->track], fn (mixed $value): bool => $value !== [] && $value !== null);
    }
}
