<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

use Octavox\Core\Failure;
use Octavox\Core\Json\Documents;

/** The destinations that there are: those that ship with Octavox in `core/destinations`, one JSON file each, and those that people made. */
final class Destinations
{
    /**
     * @return array<string, Destination> by their names, in the order of these
     *
     * @throws DestinationInvalid
     * @throws Failure
     */
    public static function shipped(): array
    {
        return self::all(null);
    }

    /**
     * @param  ?string  $own  folder of those that people made; one that cannot be read is left out
     * @return array<string, Destination> by their names, in the order of these
     *
     * @throws DestinationInvalid
     * @throws Failure
     */
    public static function all(?string $own): array
    {
        return Documents::read(Destination::fromJson(...), self::folder(), $own);
    }

    /**
     * @param  string  $word  the name of one, or the path of a file
     * @param  ?string  $own  folder of those that people made
     *
     * @throws DestinationInvalid
     * @throws Failure
     */
    public static function find(string $word, ?string $own = null): Destination
    {
        $all = self::all($own);

        return $all[$word] ?? (is_file($word) ? Destination::fromJson((string) file_get_contents($word))
            : throw DestinationInvalid::unknown($word, array_keys($all)));
    }

    private static function folder(): string
    {
        return dirname(__DIR__, 2).'/destinations';
    }
}
