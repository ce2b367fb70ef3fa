<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Sound\InvalidTime;
use Octavox\Core\Sound\TimePosition;

/** How long a sound without picture lasts. */
final readonly class Length
{
    private const SOUND = 'sound';

    private const PICTURE = 'picture';

    /** @param  string  $value  `sound`, `picture`, or a time */
    private function __construct(public string $value) {}

    /** As the track presents it. */
    public static function sound(): self
    {
        return new self(self::SOUND);
    }

    /** As long as the picture: silence after a shorter sound, a longer one is cut. */
    public static function picture(): self
    {
        return new self(self::PICTURE);
    }

    /** Of the text that {@see self::$value} holds; a time as {@see TimePosition::parse()} reads it, from the start; null of any other. */
    public static function tryFrom(string $text): ?self
    {
        $text = strtolower(trim($text));
        if ($text === self::SOUND || $text === self::PICTURE) {
            return new self($text);
        }
        try {
            return $text === '' || $text === 'end' || str_starts_with($text, '-') || str_starts_with($text, '−')
                || TimePosition::parse($text, 1000, 0, 1.0) === 0 ? null : new self($text);
        } catch (InvalidTime) {
            return null;
        }
    }

    public function isOfSound(): bool
    {
        return $this->value === self::SOUND;
    }

    public function isOfPicture(): bool
    {
        return $this->value === self::PICTURE;
    }

    /** Whether it is a time of its own. */
    public function isTime(): bool
    {
        return ! $this->isOfSound() && ! $this->isOfPicture();
    }
}
