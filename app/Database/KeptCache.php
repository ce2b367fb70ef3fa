<?php

declare(strict_types=1);

namespace App\Database;

use Illuminate\Cache\FileStore;

/** What is found out once and kept in files: where nothing more can be kept it is found out again. */
final class KeptCache extends FileStore
{
    /**
     * @param  string  $key
     * @param  int  $seconds
     */
    public function put($key, mixed $value, $seconds): bool
    {
        return $this->tried(fn (): bool => parent::put($key, $value, $seconds));
    }

    /**
     * @param  string  $key
     * @param  int  $seconds
     */
    public function add($key, mixed $value, $seconds): bool
    {
        return $this->tried(fn (): bool => parent::add($key, $value, $seconds));
    }

    /** @param  callable(): bool  $keep */
    private function tried(callable $keep): bool
    {
        try {
            return $keep();
        } catch (\Exception) {
            return false;
        }
    }
}
