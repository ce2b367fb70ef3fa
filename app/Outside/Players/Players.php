<?php

declare(strict_types=1);

namespace App\Outside\Players;

use App\Files\PluggedDevices;

/** The players that are plugged in. */
interface Players extends PluggedDevices
{
    /** @return list<Player> by name */
    public function all(): array;

    /** Null where none of that name is plugged in. */
    public function named(string $name): ?Player;

    /** The player on which a folder lies, or will lie; null where it lies on none. */
    public function holding(string $folder): ?Player;
}
