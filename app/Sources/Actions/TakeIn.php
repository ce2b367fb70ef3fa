<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Files\Shelf;
use App\Sources\Models\Source;
use App\Sources\Models\Upload;
use App\Sources\Values\SourceState;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Octavox\Core\Name\Direction;
use Octavox\Core\Name\LegalName;

/** Makes a source of a file and has it read. */
final class TakeIn
{
    public function __construct(private readonly GroupSources $groups, private readonly WorkSignal $signal) {}

    /**
     * Files of a shelf; those of a folder that was named whole are a group under its name.
     *
     * @param  list<string>  $named  paths on the shelf as they were named
     * @param  array<array-key, string>  $files  real paths, by their path on the shelf
     * @return list<Source>
     */
    public function allFromShelf(Shelf $shelf, array $named, array $files): array
    {
        $sources = [];
        foreach (array_map(strval(...), array_keys($files)) as $path) {
            $source = $this->fromShelf($shelf, $path);
            $folder = array_values(array_filter($named, fn (string $one): bool => str_starts_with($path, trim($one, '/').'/')))[0] ?? null;
            if ($folder !== null) {
                $this->groups->arrived($source, basename($folder), $shelf->name.'/'.trim($folder, '/'));
            }
            $sources[] = $source;
        }

        return $sources;
    }

    /** A file on a shelf stays where it is; one that was taken before is not taken again. */
    public function fromShelf(Shelf $shelf, string $relative): Source
    {
        $path = $shelf->resolve($relative);
        /** @var ?Source $known */
        $known = Source::everyOne()->where('path', $path)->orderByRaw('removed_at is not null')->first();
        if ($known?->discTitle() !== null) {
            Source::removed()->where('path', $path)->update(['removed_at' => null]);
        } elseif ($known?->removed_at !== null) {
            $known->update(['removed_at' => null]);
        }
        $isOther = $known !== null && $known->isReady() && $known->discTitle() === null && ! $known->isSheet()
            && $known->bytes !== (int) filesize($path);
        if ($isOther || $known?->error_code === RecordReading::TWICE) {
            // Another file has its name by now; or the other one of the same content may have left the list.
            $known->update(['state' => SourceState::Reading, 'same_as' => null]);
            $this->signal->announce(WorkKind::Reading);
        }

        return $known ?? $this->record($path, basename($path), trim($shelf->name.'/'.dirname($relative), '/.'), 'shelf',
            (int) filesize($path));
    }

    /**
     * A result that becomes a source in turn; it stays where it lies.
     *
     * @param  string  $order  what its order is called
     */
    public function result(string $path, string $order): Source
    {
        $known = Source::everyOne()->where('path', $path)->first();
        $known?->update(['removed_at' => null]);

        return $known ?? $this->record($path, basename($path), $order, 'result', (int) filesize($path));
    }

    /** An audio disc, whose sheet stands for all of its tracks. */
    public function disc(string $path, string $folder, string $origin): Source
    {
        $known = Source::everyOne()->where('path', $path)->first();
        $known?->update(['removed_at' => null]);

        return $known ?? $this->record($path, basename($path), $folder, $origin, (int) filesize($path));
    }

    /** An upload that is complete and lies in its own folder. */
    public function uploaded(Upload $upload, string $path): Source
    {
        $source = $this->record($path, $upload->name, $upload->folder, 'upload', $upload->bytes);
        if ($upload->dropped !== '' && $upload->folder !== '') {
            $this->groups->arrived($source, explode('/', $upload->folder)[0], $upload->dropped.'/'.explode('/', $upload->folder)[0]);
        }

        return $source;
    }

    /** A file that was copied from a recorder and lies in its own folder. */
    public function copied(string $path, string $folder, string $from, string $sum, string $note): Source
    {
        $source = $this->record($path, basename($path), $folder, 'recorder', (int) filesize($path));
        $source->update(['came_from' => $from, 'sha256' => $sum, 'note' => $note]);
        $this->groups->arrived($source, basename($folder), 'recorder/'.$folder);

        return $source;
    }

    private function record(string $path, string $name, string $folder, string $origin, int $bytes): Source
    {
        $source = Source::query()->create([
            'name' => LegalName::shortened(Direction::shown($name), 250),
            'folder' => mb_strcut(Direction::shown($folder), 0, 250), 'path' => $path,
            'origin' => $origin, 'bytes' => $bytes, 'state' => SourceState::Reading,
        ]);
        // Whoever takes in several things at once is done with all of them first.
        $this->signal->announce(WorkKind::Reading);

        return $source;
    }
}
