<?php

declare(strict_types=1);

namespace App\Outside\Recorders;

/** Stands for plugs: each folder in one folder is a recorder; it is pulled out by taking its folder away. */
final readonly class RecorderFolders implements Recorders
{
    private const LONGEST_NAME = 80;

    private const MOST = 50;

    public function __construct(private string $folder) {}

    public static function ofHome(): self
    {
        return new self(config()->string('octavox.home').'/recorders');
    }

    public function all(): array
    {
        $found = [];
        foreach (@scandir($this->folder) ?: [] as $name) {
            $recorder = $this->named($name);
            if ($recorder !== null && count($found) < self::MOST) {
                $found[] = $recorder;
            }
        }

        return $found;
    }

    public function named(string $name): ?Recorder
    {
        $isName = $name !== '' && ! str_starts_with($name, '.') && ! str_contains($name, '/') && ! str_contains($name, "\0")
            && mb_check_encoding($name, 'UTF-8') && strlen($name) <= self::LONGEST_NAME;

        return $isName && is_dir($this->folder.'/'.$name) && ! is_link($this->folder.'/'.$name)
            ? new Recorder($name, $this->folder.'/'.$name) : null;
    }
}
