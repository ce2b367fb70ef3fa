<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Files\Folder;
use App\Sources\Models\Source;
use App\Sources\Values\SourceState;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Illuminate\Support\Facades\File;

/** Takes a file in whose content is on the list already, because somebody wants it twice. */
final class TakeAllTheSame
{
    public function __construct(private readonly CheckedCopy $copy, private readonly WorkSignal $signal) {}

    /** @return string what became of it */
    public function take(Source $source): string
    {
        $same = Source::query()->find($source->same_as);
        if ($source->error_code !== RecordReading::TWICE || $same === null) {
            return 'Nothing has this content any longer, so there is nothing to take twice.';
        }
        // What was uploaded of it is gone; the other one has the very same bytes.
        if (! is_file($source->path) && ! $this->hasOwnAgain($source, $same)) {
            return 'There is nothing left of its file; bring it in again.';
        }
        // Which one it equals stays noted until it is read: so it is known that it is wanted.
        $source->update(['state' => SourceState::Reading, 'error_code' => null, 'error_says' => null, 'worst' => null]);
        $this->signal->announce(WorkKind::Reading);

        return 'It is taken in, though its content is here twice then.';
    }

    private function hasOwnAgain(Source $source, Source $same): bool
    {
        if (! $source->isOurs() || ! is_file($same->path)) {
            return false;
        }
        Folder::ready(dirname($source->path));
        if (@link($same->path, $source->path)) {
            return true;
        }
        try {
            $this->copy->copy($same->path, $source->path, CopyFile::goesOn(...));

            return true;
        } catch (\Throwable $failed) {
            report($failed);
            File::delete($source->path);

            return false;
        }
    }
}
