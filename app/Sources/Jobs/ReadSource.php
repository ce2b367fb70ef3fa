<?php

declare(strict_types=1);

namespace App\Sources\Jobs;

use App\Files\Folder;
use App\Processes\AskedChild;
use App\Sources\Actions\RecordReading;
use App\Sources\Actions\TakeTitles;
use App\Sources\Models\Source;
use App\Sources\Queries\HeaderlessFormats;
use App\Sources\Queries\SameContent;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\File;
use Octavox\Core\Disc\StatedTitle;
use Octavox\Core\Failure;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Reading\Reading;

/** Reads one source in a process of its own, so that a hostile file harms nothing else. */
final class ReadSource implements ShouldQueue
{
    use Queueable;

    private const SECONDS = 60;

    public int $tries = 3;

    public function __construct(private readonly int $source)
    {
        $this->onQueue('reading');
    }

    public function handle(RecordReading $record, HeaderlessFormats $formats, TakeTitles $titles, SameContent $known): void
    {
        $source = Source::query()->find($this->source);
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
            $same = $source->same_as !== null ? null : $known->of($source->path, $stated, $content, "source-$source->id.log", $source->id);
            $reading = Reading::fromArray(is_array($answer['reading'] ?? null) ? $answer['reading'] : []);
            if ($same === null) {
                // Before it counts as read: whoever waits for it waits for all titles.
                $titles->others($source, $numbers);
            }
            $record->readable($source, $reading, $content, $same);
        } catch (Interrupted $stopped) {
            if ($this->attempts() < $this->tries) {
                throw $stopped;
            }
            $record->unreadable($source, $stopped->code(), $stopped->getMessage());
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
    public function failed(?\Throwable $why): void
    {
        $source = Source::query()->find($this->source);
        if ($source !== null) {
            $says = 'Reading this file was interrupted %d times and is not begun again by itself; nothing was changed. Take it off the '
                .'list and bring it in again.';
            app(RecordReading::class)->unreadable($source, 'interrupted', sprintf($says, $this->tries));
        }
    }
}
