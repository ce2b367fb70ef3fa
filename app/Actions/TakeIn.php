<?php

declare(strict_types=1);

namespace App\Actions;

use App\Jobs\ReadSource;
use App\Models\Source;
use App\Models\Upload;
use App\Values\Shelf;
use App\Values\SourceState;
use Octavox\Core\Name\Direction;
use Octavox\Core\Name\LegalName;

/** Makes a source of a file and has it read. */
final class TakeIn
{
    /** A file on a shelf stays where it is; one that was taken before is not taken again. */
    public function fromShelf(Shelf $shelf, string $relative): Source
    {
        $path = $shelf->resolve($relative);
        $known = Source::query()->where('path', $path)->first();
        $isOther = $known !== null && $known->isReady() && $known->bytes !== (int) filesize($path);
        if ($isOther || $known?->error_code === RecordReading::TWICE) {
            // Another file has its name by now; or the other one of the same content may have left the list.
            $known->update(['state' => SourceState::Reading]);
            ReadSource::dispatch($known->id);
        }

        return $known ?? $this->record($path, basename($path), trim($shelf->name.'/'.dirname($relative), '/.'), 'shelf',
            (int) filesize($path));
    }

    /** An upload that is complete and lies in its own folder. */
    public function uploaded(Upload $upload, string $path): Source
    {
        return $this->record($path, $upload->name, $upload->folder, 'upload', $upload->bytes);
    }

    private function record(string $path, string $name, string $folder, string $origin, int $bytes): Source
    {
        $source = Source::query()->create([
            'name' => LegalName::shortened(Direction::shown($name), 250),
            'folder' => mb_strcut(Direction::shown($folder), 0, 250), 'path' => $path,
            'origin' => $origin, 'bytes' => $bytes, 'state' => SourceState::Reading,
        ]);
        ReadSource::dispatch($source->id);

        return $source;
    }
}
