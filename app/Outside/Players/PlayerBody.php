<?php

declare(strict_types=1);

namespace App\Outside\Players;

use App\Files\DeviceDescription;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Json\Fields;

/**
 * What a player is: how much it holds, where and how it wants names and playlists, and what it accepts. As JSON: `{"version": 1, "body":
 * {"capacity_bytes", "folder", "names", "playlists"}, "destination": …}`, the destination as `core/schema/destination.json` has it.
 */
final readonly class PlayerBody
{
    /**
     * @param  int  $capacity  bytes in all
     * @param  string  $folder  for sound, beneath its root; empty for the root itself
     * @param  string  $names  pattern of names
     * @param  ?string  $playlists  folder for playlists in M3U8, beneath its root; null where it knows none
     */
    private function __construct(public int $capacity, public string $folder, public string $names, public ?string $playlists,
        public Destination $destination) {}

    /**
     * Null where the text is no such description.
     *
     * @param  string  $name  the word for programs that its destination gets
     */
    public static function read(string $json, string $name): ?self
    {
        return DeviceDescription::read($json, 'body', $name, fn (Fields $body, Destination $destination): self => new self(
            max(0, $body->number('capacity_bytes')), self::folder($body->text('folder')), $body->text('names'),
            $body->isNull('playlists') ? null : self::folder($body->text('playlists')), $destination));
    }

    /** Only downwards. */
    private static function folder(string $path): string
    {
        $parts = array_filter(explode('/', str_replace(["\0", '\\'], ['', '/'], $path)), fn (string $part): bool => ! in_array($part,
            ['', '.', '..'], true));

        return implode('/', $parts);
    }
}
