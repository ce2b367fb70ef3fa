<?php

declare(strict_types=1);

namespace App\Outside\Players;

/** The players that are plugged in. */
interface Players
{
    /** @return list<Player> by name */
    public function all(): array;

    /** Null where none of that name is plugged in. */
    public function named(string $name): ?Player;

    /** Whether a folder is one of a player, be it plugged in or not. */
    public function areMeantBy(string $folder): bool;

    /** The player on which a folder lies, or will lie; null where it lies on none. */
    public function holding(string $folder): ?Player;
}
