<?php

declare(strict_types=1);

namespace App\Outside\Players;

use App\Files\PluggedFolders;

/** Stands for plugs: each folder in one folder that has a description in it is a player; it is pulled out by taking its folder away. */
final readonly class PlayerFolders implements Players
{
    private const MOST = 20;

    public function __construct(private string $folder) {}

    public static function ofHome(): self
    {
        return new self(config()->string('octavox.home').'/players');
    }

    public function all(): array
    {
        return PluggedFolders::all($this->folder, self::MOST, $this->named(...));
    }

    public function named(string $name): ?Player
    {
        $root = $this->folder.'/'.$name;
        $isName = PluggedFolders::isName($name) && preg_match('~[:\x00-\x1F]~', $name) !== 1;
        if (! $isName || ! is_dir($root) || is_link($root) || ! is_file($root.'/'.Player::DESCRIPTION)) {
            return null;
        }

        return new Player($name, $root, PlayerBody::read((string) @file_get_contents($root.'/'.Player::DESCRIPTION), Player::word($name)));
    }

    public function areMeantBy(string $folder): bool
    {
        return str_starts_with($folder, $this->folder.'/');
    }

    public function free(string $folder): ?int
    {
        return $this->holding($folder)?->free();
    }

    public function holding(string $folder): ?Player
    {
        $within = $this->areMeantBy($folder) ? substr($folder, strlen($this->folder) + 1) : '';

        return $within === '' ? null : $this->named(explode('/', $within)[0]);
    }
}
