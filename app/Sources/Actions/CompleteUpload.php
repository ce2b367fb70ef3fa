<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Files\Folder;
use App\Sources\Models\Source;
use App\Sources\Models\Upload;
use Illuminate\Support\Facades\DB;
use Octavox\Core\Name\LegalName;

/** Makes a source of an upload whose bytes are all there. It can be asked for any number of times, from anywhere: it is done once. */
final class CompleteUpload
{
    public function __construct(private readonly TakeIn $takeIn, private readonly LinkCompanions $together) {}

    /** @return ?Source null where not all of it is there */
    public function complete(Upload $upload): ?Source
    {
        /** @var ?Source $source */
        $source = DB::transaction(function () use ($upload): ?Source {
            $upload->refresh();
            if ($upload->source_id !== null) {
                return Source::everyOne()->find($upload->source_id);
            }
            if ($upload->received !== $upload->bytes) {
                return null;
            }
            $folder = config()->string('octavox.home').'/sources/'.$upload->id.LinkCompanions::within($upload->name, $upload->folder);
            $path = $folder.'/'.LegalName::file($upload->name);
            clearstatcache();
            // What was moved before a process died is not moved again.
            if (! is_file($path)) {
                if (! is_file($upload->path()) || filesize($upload->path()) !== $upload->bytes) {
                    return null;
                }
                Folder::ready($folder);
                if (! @rename($upload->path(), $path)) {
                    return null;
                }
            }
            $source = Source::everyOne()->where('path', $path)->first() ?? $this->takeIn->uploaded($upload, $path);
            $upload->update(['source_id' => $source->id]);

            return $source;
        });
        if ($source !== null) {
            $this->together->around($upload);
        }

        return $source;
    }
}
