<?php

declare(strict_types=1);

namespace App\Outside\Players;

use App\Results\Models\Result;

/** Takes files off a player; whatever they were made of stays. */
final class ClearPlayer
{
    /**
     * @param  list<string>  $paths  from the player's root on
     * @return string what came of it, in one sentence
     */
    public function clear(Player $player, array $paths): string
    {
        $there = $player->files();
        $gone = 0;
        foreach (array_intersect($paths, array_keys($there)) as $path) {
            $real = realpath($player->root.'/'.$path);
            if ($real !== false && str_starts_with($real, (string) realpath($player->root).'/') && @unlink($real)) {
                Result::query()->where('path', $player->root.'/'.$path)->update(['path' => null]);
                $gone++;
                $this->tidy($player, dirname($real));
            }
        }

        return match (true) {
            $gone === 0 => 'Nothing was taken off the player.',
            default => ($gone === 1 ? 'One file was' : number_format($gone).' files were')
                .' taken off the player; what they were made of stays.',
        };
    }

    /** Folders in which nothing is any more go. */
    private function tidy(Player $player, string $folder): void
    {
        $root = (string) realpath($player->root);
        while ($folder !== $root && str_starts_with($folder, $root.'/') && @rmdir($folder)) {
            $folder = dirname($folder);
        }
    }
}
