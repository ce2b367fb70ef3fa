<?php

declare(strict_types=1);

namespace App\Actions;

use App\Models\CopiedFolder;
use App\Models\Source;
use App\Outside\Recorders\RecordedName;
use App\Outside\Recorders\Recorders;
use App\Processes\AskedChild;
use App\Queries\ShelfFiles;
use App\Values\CopyFailed;
use App\Values\OutsideShelf;
use App\Values\Shelves;
use Illuminate\Support\Facades\File;
use Octavox\Core\Failure;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Reading\RecordingParts;

/**
 * Copies the recordings of a folder in, with their dates and their sums; the files into which a recorder has cut one recording become one
 * source. What was copied already is not copied again.
 */
final class CopyIn
{
    private const SECONDS = 60;

    /** Stand beside a copy: its sum, and that it became part of another. */
    private const SUM = '/.sha256';

    private const JOINED = '/.joined';

    public function __construct(private readonly Shelves $shelves, private readonly ShelfFiles $files, private readonly CheckedCopy $copy,
        private readonly TakeIn $take, private readonly Recorders $recorders, private readonly LayTogether $together) {}

    /** @throws Failure */
    public function of(CopiedFolder $folder): void
    {
        $files = $this->there($folder);
        $folder->update(['files' => count($files)]);
        $copied = [];
        $number = 0;
        foreach ($files as $path => $real) {
            $one = $this->one($folder, (string) $path, $real);
            // What is part of a recording that was joined before is there already.
            $copied += is_file(dirname($one[0]).self::JOINED) ? [] : [(string) $path => $one];
            $folder->update(['done' => ++$number]);
        }
        $sources = 0;
        foreach ($this->recordings($copied) as $recording) {
            $sources += $this->takeIn($folder, $recording) ? 1 : 0;
        }
        $this->layTogether($copied);
        $folder->update(['state' => CopiedFolder::DONE, 'says' => sprintf('%d %s copied and read again; %d new %s.', count($files),
            count($files) === 1 ? 'file' : 'files', $sources, $sources === 1 ? 'source' : 'sources')]);
    }

    /**
     * Each folder by itself.
     *
     * @param  array<string, array{string, string}>  $copied
     */
    private function layTogether(array $copied): void
    {
        $folders = [];
        foreach ($copied as $path => [$to]) {
            $folders[dirname($path)][$to] = basename($path);
        }
        foreach ($folders as $names) {
            $sources = Source::query()->whereIn('path', array_map(strval(...), array_keys($names)))->get(['id', 'path', 'same_as']);
            $this->together->among(array_values($sources->map(fn (Source $one): array => [$names[$one->path], $one])->all()));
        }
    }

    /**
     * @return array<array-key, string> real paths by path on the shelf
     *
     * @throws CopyFailed
     */
    private function there(CopiedFolder $folder): array
    {
        try {
            $shelf = $this->recorders->named($folder->recorder())?->files() ?? $this->shelves->named($folder->shelf)
                ?? throw new OutsideShelf('Its shelf is not open any more.');

            return $this->files->of($shelf, [$folder->folder], true)->files;
        } catch (OutsideShelf) {
            throw CopyFailed::unreadable($folder->heading());
        }
    }

    /**
     * Where the copy lies; known again by where it came from, its size and its date.
     *
     * @return array{string, string} path and SHA-256
     *
     * @throws Failure
     */
    private function one(CopiedFolder $folder, string $path, string $real): array
    {
        $facts = @stat($real) ?: throw CopyFailed::unreadable($real);
        $own = self::folderOf($folder->shelf, $path, $facts['size'], $facts['mtime']);
        $to = $own.LayTogether::within(basename($path), dirname($path)).'/'.LegalName::file(basename($path));
        $sums = $own.self::SUM;
        if (is_file($sums)) {
            return [$to, trim((string) file_get_contents($sums))];
        }
        File::ensureDirectoryExists(dirname($to), 0700);
        $sum = $this->copy->of($real, $to, fn (): bool => true);
        File::replace($sums, $sum."\n");

        return [$to, $sum];
    }

    /** Whether a file of a recorder was copied in before: the same place, size and date. */
    public static function wasCopied(string $shelf, string $path, string $real): bool
    {
        $facts = @stat($real);

        return $facts !== false && is_file(self::folderOf($shelf, $path, $facts['size'], $facts['mtime']).self::SUM);
    }

    private static function folderOf(string $shelf, string $path, int $size, int $changed): string
    {
        return config()->string('octavox.home').'/sources/'.hash('xxh128', implode("\0", [$shelf, $path, $size, $changed]));
    }

    /**
     * @param  array<string, array{string, string}>  $copied
     * @return list<array<string, array{string, string}>> those that belong together, by path on the shelf
     */
    private function recordings(array $copied): array
    {
        $readings = [];
        foreach ($copied as $path => [$to]) {
            try {
                $answer = is_file($to) ? (new AskedChild('reading', self::SECONDS))->answer(['path' => $to], $to, 'recorder.log') : [];
                $readings[$path] = Reading::fromArray(is_array($answer['reading'] ?? null) ? $answer['reading'] : []);
            } catch (Failure|\UnexpectedValueException) {
                // It says itself what is wrong with it once it is on the list.
                $readings[$path] = null;
            }
        }
        $dates = array_map(fn (array $one): int => (int) @filemtime($one[0]), $copied);

        return array_map(fn (array $paths): array => array_intersect_key($copied, array_flip($paths)),
            RecordingParts::of($readings, $dates));
    }

    /**
     * @param  array<string, array{string, string}>  $recording
     *
     * @throws Failure
     */
    private function takeIn(CopiedFolder $folder, array $recording): bool
    {
        $first = (string) array_key_first($recording);
        [$path, $sum] = $recording[$first];
        $note = '';
        if (count($recording) > 1) {
            [$path, $sum, $note] = $this->joined($recording);
        }
        if (Source::everyOne()->where('path', $path)->exists()) {
            return false;
        }
        $from = $folder->recorder() === '' ? $folder->shelf : $folder->recorder();
        $source = $this->take->copied($path, trim($from.'/'.dirname($first), '/.'), $from.'/'.$first, $sum, $note);
        $moment = RecordedName::moment(basename($first));
        if ($moment !== null && $folder->recorder() !== '') {
            $source->update(['given_name' => $moment->format('Y-m-d H.i.s').' '.$from]);
        }

        return true;
    }

    /**
     * @param  array<string, array{string, string}>  $recording
     * @return array{string, string, string} path, SHA-256, and what stands in it
     *
     * @throws Failure
     */
    private function joined(array $recording): array
    {
        $paths = array_map(fn (array $one): string => $one[0], array_values($recording));
        $own = config()->string('octavox.home').'/sources/'.hash('xxh128', implode("\0", $paths));
        $to = $own.'/'.pathinfo($paths[0], PATHINFO_FILENAME).'.wav';
        if (! is_file($to)) {
            File::ensureDirectoryExists($own, 0700);
            (new AskedChild('join', null, self::SECONDS * 10))->answer(['paths' => $paths, 'to' => $to.'.part'], $paths[0], 'recorder.log');
            touch($to.'.part', (int) @filemtime($paths[0]) ?: time());
            File::move($to.'.part', $to);
        }
        foreach ($paths as $path) {
            // So that it is not copied again.
            File::put(dirname($path).self::JOINED, $to."\n");
            File::delete($path);
        }
        $lines = array_map(fn (string $path, array $one): string => basename($path).'  '.$one[1], array_keys($recording), $recording);

        return [$to, (string) hash_file('sha256', $to), 'One recording of '.count($paths)." files:\n".implode("\n", $lines)];
    }
}
