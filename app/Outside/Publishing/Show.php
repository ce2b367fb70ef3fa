<?php

declare(strict_types=1);

namespace App\Outside\Publishing;

use Octavox\Core\Destination\Destination;
use Octavox\Core\Failure;
use Octavox\Core\Json\Fields;

/**
 * What is published under one title, and what its host accepts. As JSON: `{"version": 1, "show": {"title", "description", "language",
 * "author", "address"}, "destination": …}`, the destination as `core/schema/destination.json` has it.
 */
final readonly class Show
{
    private const VERSION = 1;

    private const MOST_BYTES = 100_000;

    /** @param  string  $address  of the site, without a slash at its end: feed and episodes lie beneath it */
    private function __construct(public string $title, public string $description, public string $language, public string $author,
        public string $address, public Destination $destination) {}

    /** Null where the text is no such description. */
    public static function read(string $json, string $name): ?self
    {
        $document = strlen($json) > self::MOST_BYTES ? null : json_decode($json, true);
        try {
            $fields = new Fields(is_array($document) ? $document : []);
            $show = $fields->optional('show');
            $destination = $fields->all()['destination'] ?? null;
            if ($show === null || ! is_array($destination) || $fields->number('version') !== self::VERSION) {
                return null;
            }
            $address = rtrim($show->text('address'), '/');

            return preg_match('~^https?://[^\s<>"]+$~', $address) !== 1 ? null : new self($show->text('title'), $show->text('description'),
                $show->text('language'), $show->text('author'), $address,
                Destination::fromArray(['version' => 1, 'name' => $name] + $destination));
        } catch (Failure|\UnexpectedValueException) {
            return null;
        }
    }
}
