<?php

declare(strict_types=1);

namespace App\Settings\Queries;

use App\Files\FolderDrive;
use App\Files\FreeSpace;
use App\Files\PluggedDevices;
use App\Lists\Humanize;

/** The room that always stays free on a drive that something is put on: below it new work waits. */
final class KeptFree
{
    private const GIGABYTE = 1_000_000_000;

    private const USUAL_GIGABYTES = 1;

    /** Of a small drive at most a tenth stays free, unless somebody wants it otherwise. */
    private const LARGEST_SHARE = 0.1;

    public function __construct(private readonly Settings $settings, private readonly FreeSpace $space,
        private readonly PluggedDevices $devices) {}

    /** @return int bytes; a player may be filled */
    public function on(string $folder): int
    {
        if ($this->devices->free($folder) !== null) {
            return 0;
        }
        $asked = $this->settings->number(Settings::FREE_GIGABYTES);
        if ($asked !== null) {
            return $asked * self::GIGABYTE;
        }
        $whole = @disk_total_space(FolderDrive::there($folder));

        return (int) min(self::USUAL_GIGABYTES * self::GIGABYTE, $whole === false ? 0 : self::LARGEST_SHARE * $whole);
    }

    /** Whether so much more leaves what always stays free; also where nobody can tell what is free. */
    public function isRoomFor(int $bytes, string $folder): bool
    {
        $free = $this->space->on($folder);

        return $free === null || $free - $this->on($folder) >= $bytes;
    }

    /** Whether the drive of the home is so full that new work waits. */
    public function isShort(): bool
    {
        return ! $this->isRoomFor(0, $this->home());
    }

    /** What every page says while new work waits; empty otherwise. */
    public function says(): string
    {
        return $this->isShort() ? sprintf('The drive of Octavox is almost full: %s are free, and new work waits until %s are.',
            Humanize::bytes((int) $this->free()), Humanize::bytes($this->kept())) : '';
    }

    /** How much is free and how much of it stays so. */
    public function lead(): string
    {
        $free = $this->free();

        return $free === null ? 'Nobody can tell how much is free on the drive of Octavox.' : sprintf(
            '%s are free on the drive of Octavox; %s always stay free.', Humanize::bytes($free), Humanize::bytes($this->kept()));
    }

    /** @return ?int bytes free on the drive of the home */
    public function free(): ?int
    {
        return $this->space->on($this->home());
    }

    public function kept(): int
    {
        return $this->on($this->home());
    }

    private function home(): string
    {
        return config()->string('octavox.home');
    }
}
