<?php

declare(strict_types=1);

namespace App\Outside\Publishing;

use App\Files\PluggedFolders;

/** The hosts that are known. */
final readonly class Hosts
{
    private const MOST = 20;

    public function __construct(private string $folder) {}

    public static function ofHome(): self
    {
        return new self(config()->string('octavox.home').'/hosts');
    }

    /** @return list<Host> by name */
    public function all(): array
    {
        return PluggedFolders::all($this->folder, self::MOST, $this->named(...));
    }

    public function named(string $name): ?LocalHost
    {
        $isName = preg_match('/^[A-Za-z0-9][A-Za-z0-9 _-]{0,79}$/', $name) === 1;

        return $isName && ! is_link($this->folder.'/'.$name) ? LocalHost::in($this->folder.'/'.$name) : null;
    }
}
