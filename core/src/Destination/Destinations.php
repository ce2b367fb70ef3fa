<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

use Octavox\Core\Json\Documents;

/** The destinations that there are: those that ship with Octavox in `core/destinations`, one JSON file each, and those that people made. */
final class Destinations
{
    /**
     * @return array<string, Destination> by their names, in the order of these
     *
     * @throws DestinationInvalid
     */
    public static function shipped(): array
    {
        return array_map(Destination::fromJson(...), Documents::in(dirname(__DIR__, 2).'/destinations'));
    }

    /**
     * @param  ?string  $own  folder of those that people made; one that cannot be read is left out
     * @return array<string, Destination> by their names, in the order of these
     *
     * @throws DestinationInvalid
     */
    public static function all(?string $own): array
    {
        $found = self::shipped();
        foreach ($own === null ? [] : Documents::in($own) as $name => $text) {
            try {
                $found += [$name => Destination::fromJson($text)];
            } catch (DestinationInvalid) {
                continue;
            }
        }
        ksort($found);

        return $found;
    }

    /**
     * @param  string  $word  the name of one, or the path of a file
     * @param  ?string  $own  folder of those that people made
     *
     * @throws DestinationInvalid
     */
    public static function of(string $word, ?string $own = null): Destination
    {
        $all = self::all($own);

        return $all[$word] ?? (is_file($word) ? Destination::fromJson((string) file_get_contents($word))
            : throw DestinationInvalid::unknown($word, array_keys($all)));
    }
}
