<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Name\NumberedName;
use Octavox\Core\Plan\Plan;

/**
 * What is written down just before a finished file gets its name, so that whoever asked for it finds it again even if both processes die
 * in that moment: which file it is on the drive, and what became of the plan.
 */
final readonly class Journal
{
    public function __construct(private string $path) {}

    public function write(string $temporary, Result $result): void
    {
        $facts = stat($temporary);
        $bytes = json_encode(['device' => $facts['dev'] ?? 0, 'inode' => $facts['ino'] ?? 0, 'result' => $result->toArray()],
            JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_PRESERVE_ZERO_FRACTION);
        if (@file_put_contents($this->path.'.new', $bytes) === strlen($bytes)) {
            @rename($this->path.'.new', $this->path);
        }
    }

    /**
     * The finished file, if it got its name.
     *
     * @return ?Result with the name that it got
     */
    public function placed(Plan $plan): ?Result
    {
        $noted = is_file($this->path) ? json_decode((string) @file_get_contents($this->path), true) : null;
        if (! is_array($noted) || ! is_array($noted['result'] ?? null)) {
            return null;
        }
        for ($number = 1; $number < 10_000; $number++) {
            $path = $plan->target->named(NumberedName::of($plan->name(), $number))->path();
            clearstatcache(true, $path);
            $facts = @stat($path);
            if ($facts === false) {
                return null;
            }
            if ($facts['dev'] === ($noted['device'] ?? null) && $facts['ino'] === ($noted['inode'] ?? null)) {
                return Result::fromArray($plan, ['path' => $path] + $noted['result']);
            }
        }

        return null;
    }

    public function forget(): void
    {
        foreach ([$this->path, $this->path.'.new'] as $path) {
            if (is_file($path)) {
                @unlink($path);
            }
        }
    }
}
