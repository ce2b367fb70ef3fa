<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Stretch;

/** XXH128 of all bytes of a file. */
final class FileSum
{
    /** @throws FileUnreadable */
    public static function begin(string $path): Summing
    {
        $bytes = FileBytes::open($path);

        return Summing::begin(function (callable $sign) use ($bytes): string {
            $hash = hash_init('xxh128');
            foreach (Stretch::in($bytes, 0, $bytes->size())->pieces() as $piece) {
                hash_update($hash, $piece);
                $sign();
            }

            return hash_final($hash);
        }, $bytes->size());
    }
}
