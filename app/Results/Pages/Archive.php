<?php

declare(strict_types=1);

namespace App\Results\Pages;

use App\Files\FileShrank;
use App\Files\TakenNames;
use App\Http\ReaderGone;
use App\Http\SlowReader;
use App\Http\ZipWriter;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use Illuminate\Support\Collection;
use Octavox\Core\Bytes\Fence;
use Octavox\Core\Name\LegalName;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Many results as one ZIP file that is written while it is sent: no second copy of them comes to be. */
final class Archive
{
    /** What is asked for and not in it stands in a text of this name. */
    private const MISSING = 'Not in this archive.txt';

    /**
     * @param  Collection<int, Result>  $results  what is not there of them is listed
     * @param  string  $name  of the ZIP file, without extension
     * @param  array<string, string>  $texts  small files beside which all lie without folders, contents by name
     */
    public static function stream(Collection $results, string $name, array $texts = []): StreamedResponse
    {
        $isThere = fn (Result $result): bool => $result->isThere() && @filesize((string) $result->path) !== false;
        $there = $results->filter($isThere);
        $missing = $results->reject($isThere);
        if ($missing->isNotEmpty()) {
            $texts[self::MISSING] = self::missing($missing);
        }
        $isFlat = array_diff(array_keys($texts), [self::MISSING]) !== [];
        $files = [];
        $names = new TakenNames;
        $length = new ZipWriter(fn () => null);
        foreach (array_keys($texts) as $own) {
            $length->count($names->free($own), strlen($texts[$own]));
        }
        foreach ($there as $result) {
            $own = $names->free($isFlat ? basename($result->pathInOrder()) : $result->pathInOrder());
            $files[$own] = [(string) $result->path, (int) filesize((string) $result->path)];
            $length->count($own, $files[$own][1]);
        }
        $length->finish();

        return new StreamedResponse(fn () => self::send($texts, $files), 200, [
            'Content-Type' => 'application/zip', 'Content-Length' => (string) $length->length(), 'X-Accel-Buffering' => 'no',
            'Cache-Control' => 'no-store',
            'Content-Disposition' => HeaderUtils::makeDisposition('attachment', LegalName::from($name).'.zip', self::plain($name).'.zip'),
        ]);
    }

    /**
     * A file that went away or shrank since it was counted ends the archive before its announced length, so that nobody takes it for whole.
     *
     * @param  array<string, string>  $texts
     * @param  array<string, array{string, int}>  $files  path and bytes by name
     */
    private static function send(array $texts, array $files): void
    {
        $reader = new SlowReader;
        $zip = new ZipWriter(function (string $bytes) use ($reader): void {
            $reader->write($bytes) || throw ReaderGone::from('the archive');
        });
        try {
            foreach ($texts as $own => $text) {
                $handle = fopen('data:text/plain;base64,'.base64_encode($text), 'rb') ?: throw FileShrank::while($own);
                $zip->add($own, $handle, strlen($text), time());
            }
            foreach ($files as $own => [$path, $bytes]) {
                $handle = @fopen($path, 'rb') ?: throw FileShrank::while($own);
                Fence::holds($path, $handle) || throw FileShrank::while($own);
                $zip->add((string) $own, $handle, $bytes, (int) (fstat($handle)['mtime'] ?? 0));
                fclose($handle);
            }
            $zip->finish();
        } catch (ReaderGone) {
            return;
        } catch (FileShrank $cut) {
            report($cut);
        }
    }

    /** @param  Collection<int, Result>  $results  that are not there */
    private static function missing(Collection $results): string
    {
        $why = fn (Result $result): string => match (true) {
            $result->binned !== null => 'in the bin',
            $result->isDone() => 'its file is not where it was put',
            $result->state === ResultState::Skipped => 'left out, because a file of its name was there',
            $result->error_says !== null && $result->state === ResultState::Failed => 'failed: '.$result->error_says,
            default => $result->state->label(),
        };
        $lines = $results->map(fn (Result $result): string => $result->name.': '.$why($result));

        return "These results were asked for and are not in this archive:\n\n".$lines->implode("\n")."\n";
    }

    /** The name for those who only know plain letters. */
    public static function plain(string $name): string
    {
        return (string) preg_replace('/[^A-Za-z0-9 ._-]/', '-', mb_scrub($name));
    }
}
