<?php

declare(strict_types=1);

namespace Octavox\Bench;

use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;

/** Notes when a delivery goes from making to verifying, and what is left to bring to the disk after that. */
final class Stopwatch implements Progress
{
    private int $began;

    private ?int $verifying = null;

    private ?int $flushing = null;

    private ?int $onDisk = null;

    /** @param  ?string  $folder  the one it is made into, if it is to be brought to the disk before it is verified */
    public function __construct(private readonly ?string $folder = null)
    {
        $this->began = (int) hrtime(true);
    }

    public function reached(Phase $phase, int $done, int $of): void
    {
        if ($phase === Phase::Flushing) {
            $this->flushing ??= (int) hrtime(true);
        }
        if ($phase === Phase::Verifying && $this->verifying === null) {
            $this->verifying = (int) hrtime(true);
            $this->bring();
        }
    }

    /** Seconds until everything was handed to the system. */
    public function making(): float
    {
        return (($this->verifying ?? $this->began) - $this->began) / 1e9;
    }

    /** Seconds from then on until it was read back and found right. */
    public function verifying(): float
    {
        return (($this->flushing ?? $this->began) - ($this->verifying ?? $this->began)) / 1e9;
    }

    /** Seconds until everything was on the disk, where that was asked for. */
    public function untilOnDisk(): float
    {
        return (($this->onDisk ?? $this->began) - $this->began) / 1e9;
    }

    private function bring(): void
    {
        // The result has its name only at the end.
        foreach ($this->folder === null ? [] : (glob($this->folder.'/.*') ?: []) as $path) {
            $file = is_file($path) ? fopen($path, 'r+b') : false;
            if ($file !== false) {
                fsync($file);
                fclose($file);
                $this->onDisk = (int) hrtime(true);
            }
        }
    }
}
