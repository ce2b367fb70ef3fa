<?php

declare(strict_types=1);

namespace Octavox\Cli;

/** Remembers which files were made here, so that a folder that is worked on again does not offer its own results as sources. */
final class MadeFiles
{
    /** Older ones are forgotten. */
    private const MOST = 50_000;

    /** @param  array<string, true>  $known  device, inode, size and time of change */
    private function __construct(private readonly string $ledger, private array $known) {}

    public static function open(): self
    {
        $ledger = Home::path('made');
        $lines = is_file($ledger) ? @file($ledger, FILE_IGNORE_NEW_LINES) : [];

        return new self($ledger, array_fill_keys($lines ?: [], true));
    }

    public function hold(string $path): bool
    {
        return isset($this->known[self::identity($path)]);
    }

    /** Where it cannot be kept nothing is lost but this convenience. */
    public function add(string $path): void
    {
        $identity = self::identity($path);
        if ($identity === '' || isset($this->known[$identity])) {
            return;
        }
        $this->known[$identity] = true;
        $folder = dirname($this->ledger);
        if (! is_dir($folder) && ! @mkdir($folder, 0700, true)) {
            return;
        }
        if (count($this->known) > self::MOST) {
            $this->known = array_slice($this->known, -intdiv(self::MOST, 2), null, true);
            @file_put_contents($this->ledger, implode("\n", array_keys($this->known))."\n", LOCK_EX);
        } else {
            @file_put_contents($this->ledger, $identity."\n", FILE_APPEND | LOCK_EX);
        }
    }

    private static function identity(string $path): string
    {
        clearstatcache(true, $path);
        $facts = @stat($path);

        return $facts === false ? '' : implode(':', [$facts['dev'], $facts['ino'], $facts['size'], $facts['mtime']]);
    }
}
