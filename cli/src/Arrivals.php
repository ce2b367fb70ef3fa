<?php

declare(strict_types=1);

namespace Octavox\Cli;

/** Which files of watched folders were there at the last look, which of them grow, and which were taken, also before a restart. */
final class Arrivals
{
    private const MOST = 100_000;

    /** @var array<string, array{string, float}> what is known of it and of its parts, and since when it is like that, by path */
    private array $seen = [];

    /** @var array<string, string> identity by path, of those that are there now */
    private array $here = [];

    /** @param  array<string, true>  $taken  device and number on it, size and time of change: a renamed file has the same */
    private function __construct(private readonly string $ledger, private array $taken, private readonly int $secondsStill) {}

    /** Those of the same folders with the same wishes. */
    public static function of(Arguments $arguments, int $secondsStill): self
    {
        $wish = json_encode([array_map(realpath(...), $arguments->paths), $arguments->wishes()], JSON_THROW_ON_ERROR
            | JSON_INVALID_UTF8_SUBSTITUTE);
        $ledger = Home::path('watched/'.hash('xxh128', $wish));
        $lines = is_file($ledger) ? @file($ledger, FILE_IGNORE_NEW_LINES) : [];

        return new self($ledger, array_fill_keys($lines ?: [], true), $secondsStill);
    }

    /**
     * @param  list<FoundFile>  $files  that are there now
     * @return bool whether any of them is still to be waited for
     */
    public function look(array $files): bool
    {
        $now = microtime(true);
        [$before, $this->seen, $this->here] = [$this->seen, [], []];
        clearstatcache();
        foreach ($files as $file) {
            // A disc, or a sheet, has arrived once all has that belongs to it.
            $all = array_map(fn (string $path): array => @stat($path) ?: [], [$file->path, ...$file->parts]);
            if ($all[0] === []) {
                continue;
            }
            $state = array_map(fn (array $facts): string => implode(':', array_map(fn (string $name): int => $facts[$name] ?? 0,
                ['dev', 'ino', 'size', 'mtime'])), $all);
            if (isset($this->taken[$state[0]])) {
                continue;
            }
            $this->here[$file->path] = $state[0];
            $touched = max(array_map(fn (array $facts): int => max($facts['mtime'] ?? 0, $facts['ctime'] ?? 0), $all));
            // What was not touched for so long before the first look is not waited for.
            $since = time() - $touched >= $this->secondsStill ? 0.0 : $now;
            $state = implode(' ', $state);
            $this->seen[$file->path] = ($before[$file->path][0] ?? '') === $state ? $before[$file->path] : [$state, $since];
        }

        return count($this->still()) < count($this->seen);
    }

    /** @return array<string, string> identity by path, of those that have not grown for long enough */
    public function still(): array
    {
        return array_filter($this->here, fn (string $path): bool => microtime(true) - $this->seen[$path][1] >= $this->secondsStill,
            ARRAY_FILTER_USE_KEY);
    }

    /** It is not asked about again as long as this process lives; gives its identity, null where it is not among those that are there. */
    public function told(string $path): ?string
    {
        $identity = $this->here[$path] ?? null;
        if ($identity !== null) {
            $this->taken[$identity] = true;
            unset($this->here[$path], $this->seen[$path]);
        }

        return $identity;
    }

    /** All that can be made of it is made: it is known from now on, also after a restart. */
    public function taken(string $path): void
    {
        $identity = $this->told($path);
        if ($identity === null) {
            return;
        }
        $folder = dirname($this->ledger);
        if (! is_dir($folder) && ! @mkdir($folder, 0700, true)) {
            return;
        }
        if (count($this->taken) <= self::MOST) {
            @file_put_contents($this->ledger, $identity."\n", FILE_APPEND | LOCK_EX);
        } else {
            $this->taken = array_slice($this->taken, -intdiv(self::MOST, 2), null, true);
            @file_put_contents($this->ledger.'.new', implode("\n", array_keys($this->taken))."\n");
            @rename($this->ledger.'.new', $this->ledger);
        }
    }
}
