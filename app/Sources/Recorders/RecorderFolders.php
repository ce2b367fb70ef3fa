<?php

declare(strict_types=1);

namespace App\Sources\Recorders;

use App\Files\PluggedFolders;

/** Stands for plugs: each folder in one folder is a recorder; it is pulled out by taking its folder away. */
final readonly class RecorderFolders implements Recorders
{
    private const MOST = 50;

    public function __construct(private string $folder) {}

    public static function ofHome(): self
    {
        return new self(config()->string('octavox.home').'/recorders');
    }

    public function all(): array
    {
        return PluggedFolders::all($this->folder, self::MOST, $this->named(...));
    }

    public function named(string $name): ?Recorder
    {
        return PluggedFolders::isName($name) && is_dir($this->folder.'/'.$name) && ! is_link($this->folder.'/'.$name)
            ? new Recorder($name, $this->folder.'/'.$name) : null;
    }
}
