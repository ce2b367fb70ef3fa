<?php

declare(strict_types=1);

namespace App\Outside\Players;

/** Stands for plugs: each folder in one folder that has a description in it is a player; it is pulled out by taking its folder away. */
final readonly class PlayerFolders implements Players
{
    private const LONGEST_NAME = 80;

    private const MOST = 20;

    public function __construct(private string $folder) {}

    public static function ofHome(): self
    {
        return new self(config()->string('octavox.home').'/players');
    }

    public function all(): array
    {
        $found = [];
        foreach (@scandir($this->folder) ?: [] as $name) {
            $player = $this->named($name);
            if ($player !== null && count($found) < self::MOST) {
                $found[] = $player;
            }
        }

        return $found;
    }

    public function named(string $name): ?Player
    {
        $root = $this->folder.'/'.$name;
        $isName = $name !== '' && ! str_starts_with($name, '.') && preg_match('~[/:\x00-\x1F]~', $name) !== 1
            && mb_check_encoding($name, 'UTF-8')
            && strlen($name) <= self::LONGEST_NAME;
        if (! $isName || ! is_dir($root) || is_link($root) || ! is_file($root.'/'.Player::DESCRIPTION)) {
            return null;
        }

        return new Player($name, $root, PlayerBody::read((string) @file_get_contents($root.'/'.Player::DESCRIPTION), Player::word($name)));
    }

    public function areMeantBy(string $folder): bool
    {
        return str_starts_with($folder, $this->folder.'/');
    }

    public function holding(string $folder): ?Player
    {
        $within = $this->areMeantBy($folder) ? substr($folder, strlen($this->folder) + 1) : '';

        return $within === '' ? null : $this->named(explode('/', $within)[0]);
    }
}
