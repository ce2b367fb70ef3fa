<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Files\CopyFailed;
use App\Files\FileSignatures;
use App\Files\Folder;
use App\Processes\Stopping;
use App\Sources\Models\CopiedFile;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\File;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Parallel\Abandoned;

/**
 * Copies one file of a recorder or a shelf in, with its date, and reads it again. One that was copied before is read and compared: names
 * and dates of recorders whose clock is not set say nothing.
 */
final class CopyFile
{
    /** Beside a copy of a former release: its sum, and of which recording it became a part. */
    private const FORMER_SUM = '/.sha256';

    private const FORMER_JOINED = '/.joined';

    public function __construct(private readonly CheckedCopy $copy) {}

    /**
     * @return array{CopiedFile, bool} what is known of it now, and whether it was copied now
     *
     * @throws CopyFailed
     * @throws Abandoned where the worker is to end
     */
    public function copy(string $shelf, string $path, string $real): array
    {
        clearstatcache(true, $real);
        $facts = @stat($real) ?: throw CopyFailed::unreadable($real);
        // Asked before it is read: a change in between shows.
        $signature = FileSignatures::read([$real])[0];
        $known = CopiedFile::named($shelf, $path, $facts['size'], $facts['mtime'])->get();
        if ($known->isEmpty()) {
            $known = collect(array_filter([$this->former($shelf, $path, $facts['size'], $facts['mtime'])]));
        }
        $sum = $known->isEmpty() ? null : $this->copy->sum($real, self::goesOn(...));
        foreach ($known as $file) {
            if ($file->sha256 === $sum && ($file->isHeld() || is_file($file->copy))) {
                $file->update(['seen' => $signature]);

                return [$file, false];
            }
        }
        $file = CopiedFile::query()->create(['shelf' => $shelf, 'path' => $path, 'bytes' => $facts['size'], 'changed' => $facts['mtime']]);
        $to = self::folder(implode("\0", [$shelf, $path, $facts['size'], $facts['mtime'], $file->id]))
            .LinkCompanions::within(basename($path), dirname($path)).'/'.LegalName::file(basename($path));
        Folder::ready(dirname($to));
        $file->update(['copy' => $to]);
        $file->update(['sha256' => $this->copy->copy($real, $to, self::goesOn(...)), 'seen' => $signature]);

        return [$file, true];
    }

    /** Whether the worker may go on; it is not to end. */
    public static function goesOn(): bool
    {
        return ! Stopping::isAsked();
    }

    /** A folder of its own among the sources. */
    public static function folder(string $of): string
    {
        return config()->string('octavox.home').'/sources/'.hash('xxh128', $of);
    }

    /** What a former release noted beside a copy, and what became of it; null where it noted nothing. */
    private function former(string $shelf, string $path, int $size, int $changed): ?CopiedFile
    {
        $own = self::folder(implode("\0", [$shelf, $path, $size, $changed]));
        $sum = is_file($own.self::FORMER_SUM) ? trim((string) file_get_contents($own.self::FORMER_SUM)) : '';
        if (strlen($sum) !== 64) {
            return null;
        }
        $copy = $own.LinkCompanions::within(basename($path), dirname($path)).'/'.LegalName::file(basename($path));
        $joined = dirname($copy).self::FORMER_JOINED;
        $source = Source::everyOne()->where('path', is_file($joined) ? trim((string) file_get_contents($joined)) : $copy)->value('id');

        return CopiedFile::query()->create(['shelf' => $shelf, 'path' => $path, 'bytes' => $size, 'changed' => $changed, 'copy' => $copy,
            'sha256' => $sum, 'source_id' => $source]);
    }

    /**
     * Recordings that a former release joined and no source was made of.
     *
     * @return list<string> paths
     */
    public static function formerlyJoined(): array
    {
        $paths = [];
        foreach (File::glob(config()->string('octavox.home').'/sources/*'.self::FORMER_JOINED) as $mark) {
            $path = trim((string) @file_get_contents($mark));
            if (! in_array($path, $paths, true) && is_file($path) && ! Source::everyOne()->where('path', $path)->exists()) {
                $paths[] = $path;
            }
        }

        return $paths;
    }
}
