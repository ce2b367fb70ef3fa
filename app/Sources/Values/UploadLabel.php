<?php

declare(strict_types=1);

namespace App\Sources\Values;

use Octavox\Core\Name\LegalName;

/** Name and folder that an upload's metadata tells: pairs of a key and base64, separated by commas (tus 1.0.0, Upload-Metadata). */
final readonly class UploadLabel
{
    /** @param  string  $drop  the same for all that were dropped together in a folder */
    private function __construct(public string $name, public string $folder, public string $drop) {}

    public static function parse(string $metadata): self
    {
        $values = [];
        foreach (explode(',', $metadata) as $pair) {
            [$key, $value] = [...explode(' ', trim($pair), 2), ''];
            $values[$key] = mb_scrub((string) base64_decode($value, true), 'UTF-8');
        }
        $path = str_replace('\\', '/', $values['path'] ?? '');
        $parts = array_filter(explode('/', dirname('/'.$path)), fn (string $part): bool => ! in_array($part, ['', '.', '..'], true));
        $name = trim((string) preg_replace('/[\x00-\x1F\x7F]/', '', basename(str_replace('\\', '/', $values['filename'] ?? ''))));

        return new self(LegalName::shortened($name === '' ? 'untitled' : $name, 250), mb_strcut(implode('/', $parts), 0, 250),
            mb_strcut($values['drop'] ?? '', 0, 60));
    }
}
