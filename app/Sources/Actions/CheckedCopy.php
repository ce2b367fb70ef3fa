<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Files\CopyFailed;
use App\Settings\Queries\KeptFree;
use Octavox\Core\Bytes\Fence;
use Octavox\Core\Parallel\Abandoned;

/** Copies a file with its date, and reads the copy again to see that it is the same. */
final class CheckedCopy
{
    private const BYTES_AT_ONCE = 1 << 20;

    public function __construct(private readonly KeptFree $room) {}

    /**
     * @param  string  $to  written over where it is there already
     * @param  callable(int): bool  $goOn  told how many bytes are done, copied and read again; says whether to go on
     * @return string SHA-256 of both
     *
     * @throws CopyFailed
     * @throws Abandoned where it was not to go on
     */
    public function copy(string $from, string $to, callable $goOn): string
    {
        clearstatcache(true, $from);
        $bytes = (int) @filesize($from);
        if (! $this->room->isRoomFor($bytes, dirname($to))) {
            throw CopyFailed::noRoom(dirname($to));
        }
        $sum = $this->pass($from, $to, $goOn);
        touch($to, (int) @filemtime($from) ?: time());
        if ($this->pass($to, null, fn (int $done): bool => $goOn($bytes + $done)) !== $sum) {
            throw CopyFailed::differs($from, dirname($to));
        }

        return $sum;
    }

    /**
     * @param  callable(int): bool  $goOn  told how many bytes are read; says whether to go on
     * @return string SHA-256 of a file
     *
     * @throws CopyFailed
     * @throws Abandoned where it was not to go on
     */
    public function sum(string $path, callable $goOn): string
    {
        return $this->pass($path, null, $goOn);
    }

    /**
     * @param  ?string  $to  null where it is only read
     * @param  callable(int): bool  $goOn
     * @return string SHA-256 of what was read
     *
     * @throws CopyFailed
     * @throws Abandoned
     */
    private function pass(string $from, ?string $to, callable $goOn): string
    {
        $in = @fopen($from, 'rb') ?: throw CopyFailed::unreadable($from);
        Fence::holds($from, $in) || throw CopyFailed::unreadable($from);
        $out = $to === null ? null : (@fopen($to, 'wb') ?: throw CopyFailed::unwritable(dirname($to)));
        $sum = hash_init('sha256');
        $done = 0;
        while (($bytes = (string) fread($in, self::BYTES_AT_ONCE)) !== '') {
            hash_update($sum, $bytes);
            if ($out !== null && @fwrite($out, $bytes) !== strlen($bytes)) {
                throw CopyFailed::noRoom(dirname((string) $to));
            }
            $done += strlen($bytes);
            $goOn($done) || throw Abandoned::now();
        }
        if ($out !== null && (! fflush($out) || ! fsync($out))) {
            throw CopyFailed::noRoom(dirname((string) $to));
        }

        return hash_final($sum);
    }
}
