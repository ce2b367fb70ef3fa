<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Plan\Plan;

/**
 * A file in which a {@see Placing} is written down, so that whoever asked for the result finds it again even if all processes die in that
 * moment.
 */
final readonly class Journal
{
    public function __construct(private string $path) {}

    public function write(Placing $placing): void
    {
        $bytes = json_encode($placing->toArray(), JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_PRESERVE_ZERO_FRACTION);
        if (@file_put_contents($this->path.'.new', $bytes) === strlen($bytes)) {
            @rename($this->path.'.new', $this->path);
        }
    }

    /**
     * The finished file, if it got its name.
     *
     * @return ?Result with the name that it got
     *
     * @throws \UnexpectedValueException where the result that was noted is none
     */
    public function placed(Plan $plan): ?Result
    {
        return is_file($this->path) ? Placing::parse(json_decode((string) @file_get_contents($this->path), true))?->result($plan) : null;
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
