<?php

declare(strict_types=1);

namespace App\Outside\WebPages;

/** How somebody wants a page with a player. */
final readonly class PageChoices
{
    private const LONGEST_TITLE = 120;

    /** Ground, ink and accent where nobody says otherwise. */
    private const COLOURS = ['ground' => '#f5eee1', 'ink' => '#231f20', 'accent' => '#6a1d4b'];

    private const LEAST_WIDTH = 240;

    private const MOST_WIDTH = 2000;

    private const WIDTH = 480;

    /**
     * @param  array{ground: string, ink: string, accent: string}  $colours  six hexadecimal figures each, after a hash
     * @param  int  $width  pixels
     */
    private function __construct(public string $title, public array $colours, public int $width, public bool $hasCover,
        public bool $hasWaveform) {}

    /**
     * What cannot be is left as usual.
     *
     * @param  array<array-key, mixed>  $input
     */
    public static function of(array $input, string $title): self
    {
        $text = fn (string $name): string => is_string($input[$name] ?? null) ? trim(mb_scrub($input[$name])) : '';
        $colour = fn (string $name): string => preg_match('/^#[0-9a-f]{6}$/i', $text($name)) === 1 ? strtolower($text($name))
            : self::COLOURS[$name];
        $isSent = isset($input['title']);
        $width = (int) $text('width');

        return new self(mb_substr($text('title') === '' ? $title : $text('title'), 0, self::LONGEST_TITLE),
            ['ground' => $colour('ground'), 'ink' => $colour('ink'), 'accent' => $colour('accent')],
            $width === 0 ? self::WIDTH : max(self::LEAST_WIDTH, min(self::MOST_WIDTH, $width)),
            ! $isSent || $text('cover') === '1', ! $isSent || $text('waveform') === '1');
    }

    /** Contrast of ink and ground: WCAG 2.2, 1.4.3 asks for 4.5. */
    public function contrast(): float
    {
        [$one, $other] = [self::luminance($this->colours['ink']), self::luminance($this->colours['ground'])];

        return (max($one, $other) + 0.05) / (min($one, $other) + 0.05);
    }

    public function isReadable(): bool
    {
        return $this->contrast() >= 4.5;
    }

    /** What stands readable on the accent. */
    public function onAccent(): string
    {
        return self::luminance($this->colours['accent']) > 0.18 ? '#000000' : '#ffffff';
    }

    /** Relative luminance: WCAG 2.2, definitions. */
    private static function luminance(string $colour): float
    {
        $parts = array_map(function (string $hex): float {
            $share = hexdec($hex) / 255;

            return $share <= 0.04045 ? $share / 12.92 : (($share + 0.055) / 1.055) ** 2.4;
        }, str_split(substr($colour, 1), 2));

        return 0.2126 * $parts[0] + 0.7152 * $parts[1] + 0.0722 * $parts[2];
    }
}
