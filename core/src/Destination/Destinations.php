<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

/** The destinations that ship with Octavox: `core/destinations`, one JSON file each. */
final class Destinations
{
    /**
     * @return array<string, Destination> by their names, in the order of these
     *
     * @throws DestinationInvalid
     */
    public static function shipped(): array
    {
        $found = [];
        foreach (glob(dirname(__DIR__, 2).'/destinations/*.json') ?: [] as $path) {
            $one = Destination::fromJson((string) file_get_contents($path));
            $found[$one->name] = $one;
        }

        return $found;
    }

    /**
     * @param  string  $word  the name of a shipped one, or the path of a file
     *
     * @throws DestinationInvalid
     */
    public static function of(string $word): Destination
    {
        $shipped = self::shipped();
        if (isset($shipped[$word])) {
            return $shipped[$word];
        }

        return is_file($word) ? Destination::fromJson((string) file_get_contents($word))
            : throw DestinationInvalid::unknown($word, array_keys($shipped));
    }
}
