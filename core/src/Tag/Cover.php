<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** A picture that stands for the sound. */
final readonly class Cover
{
    /** Larger ones are left out. */
    public const MOST_BYTES = 16 * 1024 * 1024;

    public function __construct(public string $type, public string $bytes) {}

    /** Null where the bytes are neither JPEG nor PNG. */
    public static function recognise(string $bytes): ?self
    {
        return match (true) {
            str_starts_with($bytes, "\xFF\xD8\xFF") => new self('image/jpeg', $bytes),
            str_starts_with($bytes, "\x89PNG\r\n\x1A\n") => new self('image/png', $bytes),
            default => null,
        };
    }
}
