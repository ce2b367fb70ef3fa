<?php

declare(strict_types=1);

namespace Octavox\Bench;

/**
 * Ratios that are kept in `limits.json`, as they were reached: one that is over its figure by a quarter three times in a row has become
 * slower. They are ratios of processes that were run in turn, so that the mood of a machine counts for both.
 */
final class Limits
{
    private const TRIES = 3;

    private const TOLERANCE = 1.25;

    private bool $isWithin = true;

    /** @param  array<string, float>  $figures  what was reached, by name; the smaller the faster */
    public function __construct(private readonly array $figures) {}

    /** @throws \JsonException */
    public static function kept(string $path): self
    {
        $figures = json_decode((string) file_get_contents($path), true, flags: JSON_THROW_ON_ERROR);

        return new self(array_map(fn (mixed $figure): float => is_numeric($figure) ? (float) $figure : 0.0, is_array($figures) ? $figures
            : []));
    }

    /**
     * @param  callable(): float  $measure  gives the ratio
     * @return string what was measured, and what is kept of it
     */
    public function judge(string $name, callable $measure): string
    {
        $figure = $this->figures[$name] ?? throw new \LogicException("No figure is kept of $name.");
        $measured = [];
        do {
            $measured[] = $measure();
            $isOver = end($measured) > $figure * self::TOLERANCE;
        } while ($isOver && count($measured) < self::TRIES);
        $this->isWithin = $this->isWithin && ! $isOver;

        return implode(', ', array_map(fn (float $ratio): string => sprintf('%.2f', $ratio), $measured)).sprintf(' (kept: %.2f)%s', $figure,
            $isOver ? ' TOO SLOW' : '');
    }

    public function areKept(): bool
    {
        return $this->isWithin;
    }
}
