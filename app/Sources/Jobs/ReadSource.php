<?php

declare(strict_types=1);

namespace App\Sources\Jobs;

use App\Files\Folder;
use App\Processes\AskedChild;
use App\Sources\Actions\RecordReading;
use App\Sources\Actions\TakeTitles;
use App\Sources\Models\Source;
use App\Sources\Queries\HeaderlessFormats;
use App\Sources\Queries\PendingWork;
use App\Sources\Queries\SameContent;
use App\Work\NextRow;
use App\Work\WorkKind;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\File;
use Octavox\Core\Disc\StatedTitle;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Reading\Reading;

/** Reads the next source in a process of its own, so that a hostile file harms nothing else. */
final class ReadSource implements ShouldQueue
{
    use Queueable;

    private const SECONDS = 60;

    private const TRIES = 3;

    public int $tries = 0;

    public function handle(NextRow $next, PendingWork $pending, RecordReading $record, HeaderlessFormats $formats, TakeTitles $titles,
        SameContent $known): void
    {
        $next->work(WorkKind::Reading, $pending->readings(), 'sources.id', self::TRIES,
            fn (int $id) => $this->record(Source::query()->find($id), $record, $formats, $titles, $known),
            fn (int $id, ?\Throwable $why) => self::giveUp(Source::query()->find($id), $why, $record));
    }

    /** @throws Interrupted */
    private function record(?Source $source, RecordReading $record, HeaderlessFormats $formats, TakeTitles $titles,
        SameContent $known): void
    {
        if ($source === null) {
            return;
        }
        Folder::ready(dirname($source->coverPath()));
        // What a reading before left of it, be it one that was killed.
        File::delete($source->coverPath());
        try {
            $answer = $this->read($source, $formats);
            $content = is_string($answer['content'] ?? null) ? $answer['content'] : '';
            $numbers = array_values(array_filter(is_array($answer['titles'] ?? null) ? $answer['titles'] : [], is_int(...)));
            $stated = $numbers === [] ? $source->stated : (string) new StatedTitle($numbers[0]);
            // What equals another one and is read all the same is wanted twice.
            $same = $source->same_as !== null ? null : $known->find($source->path, $stated, $content, "source-$source->id.log", $source
                ->id);
            $reading = Reading::fromArray(is_array($answer['reading'] ?? null) ? $answer['reading'] : []);
            if ($same === null) {
                // Before it counts as read: whoever waits for it waits for all titles.
                $titles->others($source, $numbers);
            }
            $record->readable($source, $reading, $content, $same);
        } catch (Interrupted $stopped) {
            throw $stopped;
        } catch (Failure $failure) {
            $record->unreadable($source, $failure->code(), $failure->getMessage());
        }
    }

    /**
     * As what it is; a file without a header as somebody said, or as those of its recorder are.
     *
     * @return array<array-key, mixed>
     *
     * @throws Failure
     */
    private function read(Source $source, HeaderlessFormats $formats): array
    {
        $child = new AskedChild('reading', self::SECONDS);
        $asked = ['path' => $source->path, 'cover' => $source->coverPath(), 'stated' => $source->stated];
        try {
            return $child->answer($asked, $source->path, "source-$source->id.log");
        } catch (Failure $failure) {
            $known = $source->stated === null && in_array($failure->code(), Source::NO_HEADER, true) ? $formats->for($source->name) : null;
            if ($known === null) {
                throw $failure;
            }
            $source->update(['stated' => $known->as]);

            return $child->answer(['stated' => $known->as] + $asked, $source->path, "source-$source->id.log");
        }
    }

    /** Nothing stays on the list as being read for ever. */
    private static function giveUp(?Source $source, ?\Throwable $why, RecordReading $record): void
    {
        if ($source !== null) {
            $says = sprintf('Reading this file was interrupted %d times and is not begun again by itself; nothing was changed. Take it off '
                .'the list and bring it in again.', self::TRIES);
            $record->unreadable($source, 'interrupted', $why === null ? $says : InternalFault::of($why)->getMessage());
        }
    }
}
