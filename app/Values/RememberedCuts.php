<?php

declare(strict_types=1);

namespace App\Values;

use Illuminate\Support\Facades\Cache;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Make\CutsOfChild;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Plan\CutFinder;
use Octavox\Core\Plan\KeptCut;

/** A sheet is planned again with every change on it; what was found of an unchanged file is not looked for twice. */
final class RememberedCuts implements CutFinder
{
    private const SECONDS = 3600;

    public function around(string $path, ?HeaderlessFormat $stated, int $number, AudioFormat $form, OutputFormat $format, int $from, int $until): ?KeptCut
    {
        $facts = @stat($path);
        $key = 'cut-'.hash('xxh128', serialize([$path, $facts === false ? 0 : [$facts['ino'], $facts['size'], $facts['mtime']], (string) $stated, $number, $format->name(), $from, $until]));
        /** @var array<string, int> $cut */
        $cut = Cache::remember($key, self::SECONDS, fn (): array => (new CutsOfChild)->around($path, $stated, $number, $form, $format, $from, $until)?->toArray() ?? []);

        return $cut === [] ? null : KeptCut::fromArray($cut);
    }
}
