<?php

declare(strict_types=1);

namespace App\Queries;

use App\Values\NameClash;
use App\Values\SheetLine;

/** Which results of an order would have the name of another one, or of a file that is there. */
final class NameClashes
{
    /**
     * @param  list<SheetLine>  $lines
     * @param  bool  $isOwn  whether nothing else can lie where they go
     * @return list<SheetLine> with what clashes
     */
    public function on(array $lines, bool $isOwn): array
    {
        $paths = [];
        foreach ($lines as $line) {
            foreach ($line->makable() as $one) {
                $paths[mb_strtolower((string) $one->plan?->path())] = true;
            }
        }

        return array_map(function (SheetLine $line) use ($paths, $isOwn): SheetLine {
            foreach ($line->makable() as $one) {
                $path = (string) $one->plan?->path();
                $isNumbered = preg_match('~^(.+) \d+(\.[^./]+)$~u', $path, $parts) === 1
                    && isset($paths[mb_strtolower($parts[1].$parts[2])]);
                if ($isNumbered || ! $isOwn && file_exists($path)) {
                    return $line->clashing($isNumbered ? NameClash::Numbered : NameClash::Exists);
                }
            }

            return $line;
        }, $lines);
    }
}
