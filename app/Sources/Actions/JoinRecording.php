<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Files\Folder;
use App\Processes\AskedChild;
use App\Sources\Models\CopiedFile;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Octavox\Core\Failure;

/**
 * Makes one source of the files into which a recorder has cut one recording. The parts go only once that source is on the list, so whoever
 * is killed in between finds either them or the whole recording, and goes on.
 */
final class JoinRecording
{
    private const SECONDS_SILENT = 600;

    public function __construct(private readonly CheckedCopy $copy) {}

    /**
     * @param  non-empty-array<string, CopiedFile>  $parts  by path on the shelf
     * @param  callable(string, string, string): Source  $take  makes a source of the recording: its path, its sum, and what stands in it
     *
     * @throws Failure
     */
    public function join(array $parts, callable $take): Source
    {
        $paths = array_map(fn (CopiedFile $part): string => $part->copy, array_values($parts));
        $to = CopyFile::folder(implode("\0", $paths)).'/'.pathinfo($paths[0], PATHINFO_FILENAME).'.wav';
        $sum = is_file($to) ? $this->copy->sum($to, CopyFile::goesOn(...)) : $this->written($paths, $to);
        $lines = array_map(fn (string $path, CopiedFile $part): string => basename($path).'  '.$part->sha256, array_keys($parts), $parts);
        $note = 'One recording of '.count($paths)." files:\n".implode("\n", $lines);
        $source = $this->noted($parts, fn (): Source => $take($to, $sum, $note));
        foreach ($parts as $part) {
            File::delete($part->copy);
        }

        return $source;
    }

    /**
     * @param  non-empty-array<string, CopiedFile>  $parts
     * @param  callable(): Source  $take
     */
    private function noted(array $parts, callable $take): Source
    {
        $source = null;
        DB::transaction(function () use ($parts, $take, &$source): void {
            $source = $take();
            CopiedFile::query()->whereKey(array_map(fn (CopiedFile $part): int => $part->id, $parts))->update(['source_id' => $source->id]);
        });

        return $source ?? throw new \LogicException('What is taken becomes a source.');
    }

    /**
     * @param  non-empty-list<string>  $paths
     * @return string SHA-256 of what was written
     *
     * @throws Failure
     */
    private function written(array $paths, string $to): string
    {
        Folder::ready(dirname($to));
        $answer = (new AskedChild('join', null, self::SECONDS_SILENT))
            ->answer(['paths' => $paths, 'to' => $to.'.part'], $paths[0], 'recorder.log');
        touch($to.'.part', (int) @filemtime($paths[0]) ?: time());
        File::move($to.'.part', $to);

        return is_string($answer['sha256'] ?? null) ? $answer['sha256'] : '';
    }
}
