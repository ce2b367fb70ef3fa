<?php

declare(strict_types=1);

namespace App\Orders\Planning;

use App\Files\BinFolder;
use App\Sources\Models\Source;
use Octavox\Core\Order\IfExists;

/** Which results of an order would have the name of another one, or of a file that is there. */
final class NameClashes
{
    private const AT_ONCE = 500;

    public function __construct(private readonly BinFolder $bins) {}

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

        $there = $isOwn ? [] : array_filter(array_map(fn (SheetLine $line): array => array_values(array_filter(array_map(
            fn (PlannedResult $one): string => (string) $one->plan?->path(), $line->makable()), file_exists(...))), $lines));
        $sources = $this->sources(array_merge([], ...$there));

        return array_map(function (int $index, SheetLine $line) use ($paths, $there, $sources): SheetLine {
            $existing = $there[$index] ?? [];
            if ($line->spec->ifExists === IfExists::Replace && array_intersect($existing, $sources) !== []) {
                return $line->clashing(NameClash::Source);
            }
            foreach ($line->makable() as $one) {
                $path = (string) $one->plan?->path();
                $isNumbered = preg_match('~^(.+) \d+(\.[^./]+)$~u', $path, $parts) === 1
                    && isset($paths[mb_strtolower($parts[1].$parts[2])]);
                if ($isNumbered || in_array($path, $existing, true)) {
                    return $line->clashing(match (true) {
                        $isNumbered => NameClash::Numbered,
                        $line->spec->ifExists === IfExists::Replace && ! $this->bins->takes($path) => NameClash::ForGood,
                        default => NameClash::Exists,
                    });
                }
            }

            return $line;
        }, array_keys($lines), $lines);
    }

    /**
     * @param  list<string>  $paths  of files that are there
     * @return list<string> those that are sources, whatever link leads to them
     */
    private function sources(array $paths): array
    {
        $real = array_map(fn (string $path): string => realpath($path) ?: $path, $paths);
        $known = [];
        foreach (array_chunk(array_values(array_unique([...$paths, ...$real])), self::AT_ONCE) as $some) {
            $known += array_flip(array_filter(Source::everyOne()->whereIn('path', $some)->pluck('path')->all(), is_string(...)));
        }

        return array_values(array_filter($paths, fn (string $path): bool => isset($known[$path]) || isset($known[realpath($path) ?: ''])));
    }
}
