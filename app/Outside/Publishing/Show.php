<?php

declare(strict_types=1);

namespace App\Outside\Publishing;

use App\Files\DeviceDescription;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Json\Fields;

/**
 * What is published under one title, and what its host accepts. As JSON: `{"version": 1, "show": {"title", "description", "language",
 * "author", "address"}, "destination": …}`, the destination as `core/schema/destination.json` has it.
 */
final readonly class Show
{
    /** @param  string  $address  of the site, without a slash at its end; the show keeps its guid by it, wherever it is served */
    private function __construct(public string $title, public string $description, public string $language, public string $author,
        public string $address, public Destination $destination) {}

    /** Null where the text is no such description. */
    public static function read(string $json, string $name): ?self
    {
        return DeviceDescription::read($json, 'show', $name, function (Fields $show, Destination $destination): ?self {
            $address = rtrim($show->text('address'), '/');

            return preg_match('~^https?://[^\s<>"]+$~', $address) !== 1 ? null : new self($show->text('title'), $show->text('description'),
                $show->text('language'), $show->text('author'), $address, $destination);
        });
    }
}
