<?php

declare(strict_types=1);

namespace App\Outside\Discs;

use App\Files\Folder;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use Octavox\Core\Disc\DiscFolder;

/**
 * Stands for a drive: a folder is its tray, and an image or a folder of a disc that lies in it is inserted. What is ejected lies beside,
 * ready to be put in again.
 */
final readonly class TrayFolder implements DiscDrive
{
    private const TRAY = 'tray';

    private const BESIDE = 'discs';

    private const IMAGES = ['cue', 'iso', 'img', 'udf'];

    /** @param  string  $folder  in which the tray is */
    public function __construct(private string $folder) {}

    public static function ofHome(): self
    {
        return new self(config()->string('octavox.home').'/drive');
    }

    public function disc(): ?string
    {
        $tray = $this->folder.'/'.self::TRAY;
        $names = self::names($tray);
        foreach ($names as $name) {
            $within = is_dir("$tray/$name") ? $this->inFolder("$tray/$name") : null;
            if ($within !== null) {
                return $within;
            }
        }

        // What is no disc is told of all the same, and can be ejected.
        return $this->inFolder($tray) ?? (isset($names[0]) ? "$tray/$names[0]" : null);
    }

    /** The disc that a folder is or holds. */
    private function inFolder(string $folder): ?string
    {
        $names = self::names($folder);
        $video = array_values(array_filter($names, fn (string $name): bool => strtoupper($name) === 'VIDEO_TS' && is_dir("$folder/$name")));
        $first = DiscFolder::first($names);
        if ($first !== null || $video !== []) {
            return $first !== null ? "$folder/$first" : $this->inFolder("$folder/$video[0]");
        }
        foreach (self::IMAGES as $extension) {
            foreach ($names as $name) {
                if (strtolower(pathinfo($name, PATHINFO_EXTENSION)) === $extension && is_file("$folder/$name")) {
                    return "$folder/$name";
                }
            }
        }

        return null;
    }

    public function beside(): array
    {
        return self::names($this->folder.'/'.self::BESIDE);
    }

    /** @throws DriveRefuses */
    public function eject(): void
    {
        $tray = $this->folder.'/'.self::TRAY;
        $isWanted = Result::query()->whereIn('state', [ResultState::Waiting, ResultState::Making])
            ->whereIn('source_id', Source::everyOne()->whereRaw('substr(path, 1, ?) = ?', [strlen($tray) + 1, $tray.'/'])
                ->select('id'))->exists();
        if ($isWanted) {
            throw DriveRefuses::busy();
        }
        $names = self::names($tray);
        // What lies loose in the tray is one disc, and stays together.
        $isLoose = count($names) > 1 || isset($names[0]) && ! is_dir("$tray/$names[0]");
        $to = $this->folder.'/'.self::BESIDE.($isLoose ? '/'.$this->free(pathinfo($names[0], PATHINFO_FILENAME)) : '');
        Folder::ready($to);
        foreach ($names as $name) {
            $target = $isLoose ? $name : $this->free($name);
            @rename("$tray/$name", "$to/$target") || throw DriveRefuses::stuck($this->folder);
        }
    }

    /** @throws DriveRefuses */
    public function insert(string $name): void
    {
        $tray = $this->folder.'/'.self::TRAY;
        if (self::names($tray) !== []) {
            throw DriveRefuses::full();
        }
        if (! in_array($name, $this->beside(), true)) {
            throw DriveRefuses::missing($name);
        }
        Folder::ready($tray);
        @rename($this->folder.'/'.self::BESIDE.'/'.$name, "$tray/$name") || throw DriveRefuses::stuck($this->folder);
    }

    /** A name that nothing beside the drive has. */
    private function free(string $name): string
    {
        $taken = $this->beside();
        for ($number = 2, $free = $name; in_array($free, $taken, true); $number++) {
            $free = "$name ($number)";
        }

        return $free;
    }

    /** @return list<string> */
    private static function names(string $folder): array
    {
        return array_values(array_filter(@scandir($folder) ?: [], fn (string $name): bool => ! str_starts_with($name, '.')
            && mb_check_encoding($name, 'UTF-8')));
    }
}
