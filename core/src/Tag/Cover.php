<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** A picture that stands for the sound. */
final readonly class Cover
{
    /** Larger ones are left out. */
    public const MOST_BYTES = 16 * 1024 * 1024;

    /** How JPEG (ISO/IEC 10918-1, B.1.1.3) and PNG (W3C PNG, 5.2) begin. */
    private const BEGINS = ['image/jpeg' => "\xFF\xD8\xFF", 'image/png' => "\x89PNG\r\n\x1A\n"];

    public function __construct(public string $type, public string $bytes) {}

    /**
     * Whether a result gets one.
     *
     * @param  ?string  $asked  the path of a picture, empty for none; null leaves that of the source
     * @param  bool  $own  whether the source has one
     */
    public static function isGiven(?string $asked, bool $own): bool
    {
        return $asked === null ? $own : $asked !== '';
    }

    /** Null where the bytes are neither JPEG nor PNG. */
    public static function recognise(string $bytes): ?self
    {
        foreach (self::BEGINS as $type => $begin) {
            if (str_starts_with($bytes, $begin)) {
                return new self($type, $bytes);
            }
        }

        return null;
    }

    /** The picture that begins first among the given number of bytes: what looks like the start of another may stand within it. */
    public static function within(string $bytes, int $most): ?self
    {
        $head = substr($bytes, 0, $most + 8);
        $places = array_filter(array_map(fn (string $begin): int|false => strpos($head, $begin), self::BEGINS), is_int(...));

        return $places === [] || min($places) > $most ? null : self::recognise(substr($bytes, min($places)));
    }
}
