<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Files\CopyFailed;
use App\Files\OutsideShelf;
use App\Files\ShelfFiles;
use App\Files\Shelves;
use App\Processes\AskedChild;
use App\Sources\Models\CopiedFile;
use App\Sources\Models\CopiedFolder;
use App\Sources\Models\Source;
use App\Sources\Queries\SameContent;
use App\Sources\Recorders\RecordedName;
use App\Sources\Recorders\Recorders;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Parallel\Abandoned;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Reading\RecordingParts;

/**
 * Copies the recordings of a folder in, with their dates and their sums; the files into which a recorder has cut one recording become one
 * source. Each recording is taken by itself: what befalls one keeps no other out.
 */
final class CopyIn
{
    private const SECONDS = 60;

    /** Files that could not be taken in are named; of many the first few. */
    private const MOST_NAMED = 3;

    /** @var array<string, string> what befell a file, by its path on the shelf */
    private array $troubles = [];

    public function __construct(private readonly Shelves $shelves, private readonly ShelfFiles $files, private readonly CopyFile $copy,
        private readonly TakeIn $take, private readonly Recorders $recorders, private readonly LinkCompanions $together,
        private readonly JoinRecording $join, private readonly SameContent $same) {}

    /**
     * @throws CopyFailed where nothing of it can be read
     * @throws Abandoned where the worker is to end
     * @throws Interrupted
     */
    public function copyIn(CopiedFolder $folder): void
    {
        $this->troubles = [];
        $files = $this->there($folder);
        $folder->update(['files' => count($files)]);
        $copied = $new = [];
        $number = $copies = 0;
        foreach ($files as $path => $real) {
            $path = (string) $path;
            $this->guarded([$path], function () use ($folder, $path, $real, &$copied, &$new, &$copies): void {
                [$copied[$path], $isCopy] = $this->copy->copy($folder->shelf, $path, $real);
                $copies += $isCopy ? 1 : 0;
                if (! $copied[$path]->isHeld()) {
                    $new[$path] = $copied[$path];
                }
            });
            $folder->update(['done' => ++$number]);
        }
        $sources = $twins = 0;
        [$recordings, $contents] = $this->recordings($new);
        foreach ($recordings as $recording) {
            $this->guarded(array_keys($recording), function () use ($folder, $recording, $contents, &$sources, &$twins): void {
                $this->takeIn($folder, $recording, $contents) ? $sources++ : $twins++;
            });
        }
        $this->layTogether($copied);
        $folder->update(['state' => $this->troubles === [] ? CopiedFolder::DONE : CopiedFolder::FAILED,
            'says' => self::says($copies, count($copied) - $copies, $sources, $twins).$this->troublesSay()]);
    }

    /**
     * @param  list<string>  $paths  whose fault it is
     * @param  callable(): void  $do
     *
     * @throws Abandoned
     * @throws Interrupted
     */
    private function guarded(array $paths, callable $do): void
    {
        try {
            $do();
        } catch (Abandoned|Interrupted $stopped) {
            throw $stopped;
        } catch (\Throwable $trouble) {
            report_unless($trouble instanceof Failure, $trouble);
            $says = $trouble instanceof Failure ? $trouble->getMessage() : InternalFault::of($trouble)->getMessage();
            $this->troubles += array_fill_keys($paths, $says);
        }
    }

    private static function says(int $copies, int $compared, int $sources, int $twins): string
    {
        $files = fn (int $number): string => $number.($number === 1 ? ' file' : ' files');

        return $files($copies).' copied and read again'.($compared === 0 ? '' : ', '.$files($compared).' compared').'; '.$sources.' new '
            .($sources === 1 ? 'source' : 'sources').($twins === 0 ? '' : ', '.$twins.' on the list already').'.';
    }

    /** Empty where all went well. */
    private function troublesSay(): string
    {
        if ($this->troubles === []) {
            return '';
        }
        $names = array_map(basename(...), array_slice(array_keys($this->troubles), 0, self::MOST_NAMED));
        $more = count($this->troubles) - count($names);

        return sprintf(' Not taken in: %s%s. %s', implode(', ', $names), $more === 0 ? '' : " and $more more", reset($this->troubles));
    }

    /**
     * Each folder by itself.
     *
     * @param  array<string, CopiedFile>  $copied
     */
    private function layTogether(array $copied): void
    {
        $folders = [];
        foreach ($copied as $path => $file) {
            $folders[dirname($path)][$file->copy] = basename($path);
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
                ?? throw new OutsideShelf('Its shelf is no longer open.');

            return $this->files->find($shelf, [$folder->folder], true)->files;
        } catch (OutsideShelf) {
            throw CopyFailed::unreadable($folder->heading());
        }
    }

    /**
     * @param  array<string, CopiedFile>  $copied
     * @return array{list<non-empty-array<string, CopiedFile>>, array<string, string>} those that belong together, by path on the shelf, and
     *                                                                                 the mark of what each holds
     *
     * @throws Interrupted
     */
    private function recordings(array $copied): array
    {
        $readings = $contents = [];
        foreach ($copied as $path => $file) {
            try {
                $answer = (new AskedChild('reading', self::SECONDS))->answer(['path' => $file->copy], $file->copy, 'recorder.log');
                $contents[$path] = is_string($answer['content'] ?? null) ? $answer['content'] : '';
                $readings[$path] = Reading::fromArray(is_array($answer['reading'] ?? null) ? $answer['reading'] : []);
            } catch (Interrupted $stopped) {
                throw $stopped;
            } catch (Failure|\UnexpectedValueException) {
                // It says itself what is wrong with it once it is on the list.
                $readings[$path] = null;
            }
        }
        $dates = array_map(fn (CopiedFile $file): int => $file->changed, $copied);
        $recordings = [];
        foreach (RecordingParts::group($readings, $dates) as $paths) {
            $recordings[] = array_intersect_key($copied, array_flip($paths));
        }

        return [array_values(array_filter($recordings)), $contents];
    }

    /**
     * @param  non-empty-array<string, CopiedFile>  $recording
     * @param  array<string, string>  $contents  marks of what they hold
     * @return bool whether it is new; else what it holds is on the list already
     *
     * @throws Failure
     */
    private function takeIn(CopiedFolder $folder, array $recording, array $contents): bool
    {
        $path = array_key_first($recording);
        if (count($recording) > 1) {
            $take = fn (string $to, string $sum, string $note): Source => $this->record($folder, $path, $to, $sum, $note);
            $this->join->join($recording, $take);

            return true;
        }
        $file = $recording[$path];
        $same = $this->same->find($file->copy, null, $contents[$path] ?? '', 'recorder.log');
        if ($same !== null) {
            $file->update(['same_as' => $same->id]);
            File::delete($file->copy);

            return false;
        }
        DB::transaction(function () use ($folder, $path, $file): void {
            $file->update(['source_id' => $this->record($folder, $path, $file->copy, (string) $file->sha256)->id]);
        });

        return true;
    }

    /** One that a process which died then had recorded is not recorded twice. */
    private function record(CopiedFolder $folder, string $first, string $path, string $sum, string $note = ''): Source
    {
        $known = Source::everyOne()->where('path', $path)->first();
        if ($known !== null) {
            return $known;
        }
        $from = $folder->recorder() === '' ? $folder->shelf : $folder->recorder();
        $source = $this->take->copied($path, trim($from.'/'.dirname($first), '/.'), $from.'/'.$first, $sum, $note);
        $moment = RecordedName::moment(basename($first));
        if ($moment !== null && $folder->recorder() !== '') {
            $source->update(['given_name' => $moment->format('Y-m-d H.i.s').' '.$from]);
        }

        return $source;
    }
}
