<?php

declare(strict_types=1);

namespace Octavox\Core\Json;

/** Folders of JSON documents, each in a file that is called as the document is. */
final class Documents
{
    /** Bytes of the largest that is read. */
    private const MOST_BYTES = 1_000_000;

    /** @return array<string, string> the text of each document by its name, in the order of these; of one name that of the first folder */
    public static function in(string ...$folders): array
    {
        $found = [];
        foreach ($folders as $folder) {
            foreach (glob(addcslashes($folder, '*?[\\').'/*.json') ?: [] as $path) {
                $text = @file_get_contents($path, length: self::MOST_BYTES);
                $found += $text === false ? [] : [basename($path, '.json') => $text];
            }
        }
        ksort($found);

        return $found;
    }
}
