<?php

declare(strict_types=1);

namespace App\Sources\Recorders;

/** The recorders and cameras that are plugged in. */
interface Recorders
{
    /** @return list<Recorder> by name */
    public function all(): array;

    /** Null where none of that name is plugged in. */
    public function named(string $name): ?Recorder;
}
