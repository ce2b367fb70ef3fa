<?php

declare(strict_types=1);

namespace Octavox\Cli;

/** How far it is, on a terminal: one line that is written over. In a pipe and beside JSON there is none. */
final class ProgressLine
{
    private const SECONDS_BETWEEN = 0.5;

    private float $begun;

    private float $said = 0.0;

    private bool $isShown = false;

    /**
     * @param  ?resource  $terminal  null shows nothing
     * @param  int  $files  in all
     * @param  float  $seconds  of sound in all
     */
    public function __construct(private readonly mixed $terminal, private readonly int $files, private readonly float $seconds)
    {
        $this->begun = microtime(true);
    }

    public static function on(bool $isWanted, int $files, float $seconds): self
    {
        return new self($isWanted && @stream_isatty(STDERR) ? STDERR : null, $files, $seconds);
    }

    /**
     * @param  int  $ended  files
     * @param  float  $made  seconds of sound
     */
    public function show(int $ended, float $made): void
    {
        $now = microtime(true);
        if ($this->terminal === null || $now - $this->said < self::SECONDS_BETWEEN) {
            return;
        }
        $this->said = $now;
        $speed = $made / max(0.001, $now - $this->begun);
        $left = $speed > 0 ? ($this->seconds - $made) / $speed : 0.0;
        $this->clear();
        @fwrite($this->terminal, sprintf('%d of %d, %d %%, %.0f × real time, %s left', $ended, $this->files,
            (int) min(100, 100 * $made / max(0.001, $this->seconds)), $speed, self::clock($left)));
        $this->isShown = true;
    }

    /** Before anything else is said. */
    public function clear(): void
    {
        if ($this->isShown && $this->terminal !== null) {
            // ECMA-48, 8.3.41: erase in line
            @fwrite($this->terminal, "\r\x1B[2K");
            $this->isShown = false;
        }
    }

    private static function clock(float $seconds): string
    {
        return $seconds < 60 ? ceil(max(0.0, $seconds)).' s' : sprintf('%d:%02d min', intdiv((int) $seconds, 60), (int) $seconds % 60);
    }
}
