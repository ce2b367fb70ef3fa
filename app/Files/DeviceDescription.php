<?php

declare(strict_types=1);

namespace App\Files;

use Octavox\Core\Destination\Destination;
use Octavox\Core\Failure;
use Octavox\Core\Json\Fields;

/** The JSON by which something outside describes itself: a section of its own, and the destination that it is. */
final class DeviceDescription
{
    private const VERSION = 1;

    private const MOST_BYTES = 100_000;

    /**
     * @template T of object
     *
     * @param  string  $section  its own one
     * @param  string  $name  the word for programs that its destination gets
     * @param  \Closure(Fields, Destination): ?T  $make  of its own section, and of the destination
     * @return ?T null where the text is no such description
     */
    public static function read(string $json, string $section, string $name, \Closure $make): ?object
    {
        $document = strlen($json) > self::MOST_BYTES ? null : json_decode($json, true);
        try {
            $fields = new Fields(is_array($document) ? $document : []);
            $own = $fields->optional($section);
            $destination = $fields->all()['destination'] ?? null;

            return $own === null || ! is_array($destination) || $fields->number('version') !== self::VERSION ? null
                : $make($own, Destination::fromArray(['version' => 1, 'name' => $name] + $destination));
        } catch (Failure|\UnexpectedValueException) {
            return null;
        }
    }
}
