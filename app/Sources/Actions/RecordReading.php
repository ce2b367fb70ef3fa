<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Sources\Models\CopiedFile;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Values\SourceState;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Media\Severity;
use Octavox\Core\Media\Track as MediaTrack;
use Octavox\Core\Reading\Finding;
use Octavox\Core\Reading\Playlist;
use Octavox\Core\Reading\Reading;

/** Keeps what was read of a source, or why it could not be read. */
final class RecordReading
{
    public const TWICE = 'same-content';

    public function __construct(private readonly GatherCall $calls, private readonly WorkSignal $signal) {}

    /**
     * @param  string  $content  the mark of its content
     * @param  ?Source  $same  one of the same content that is on the list already
     */
    public function readable(Source $source, Reading $reading, string $content = '', ?Source $same = null): void
    {
        if ($same !== null) {
            $this->twice($source, $same);

            return;
        }
        DB::transaction(function () use ($source, $reading, $content): void {
            $source->tracks()->delete();
            Track::query()->insert(array_map(fn (MediaTrack $track): array => $this->row($source, $track), $reading->tracks));
            $source->update([
                'state' => SourceState::Ready,
                'container' => $reading->container,
                'bytes' => $reading->bytes,
                'seconds' => $reading->seconds,
                'picture' => $reading->picture()?->picture?->label,
                'worst' => Severity::worst(...array_map(fn (Finding $finding): Severity => $finding->severity, $reading->findings))?->value,
                'reading' => $reading->toArray(),
                'content' => $content,
                'same_as' => null,
                'error_code' => null,
                'error_says' => null,
            ]);
        });
        $this->calls->around($source->refresh());
        $this->signal->announce(WorkKind::Analysis, count($source->soundTracks()));
    }

    /** The same content is not taken in twice: what was uploaded of it goes, what lies on a shelf stays where it is. */
    private function twice(Source $source, Source $same): void
    {
        $source->update(['same_as' => $same->id]);
        $this->unreadable($source, self::TWICE,
            sprintf('It has the very content of “%s”, which is on the list already, so it was not taken in '
            .'a second time.', $same->name));
        if ($source->isOurs() && ! $source->isShared()) {
            File::delete($source->path);
        }
        CopiedFile::query()->where('source_id', $source->id)->update(['same_as' => $same->id]);
        // Nobody has to be told of each file of a card that is here already.
        $source->origin === 'recorder' && $source->delete();
    }

    public function unreadable(Source $source, string $code, string $says): void
    {
        if (Playlist::isOne($source->name)) {
            $says = 'This is a playlist: it names recordings and holds none. Take it from the shelf on which they lie, or drop them here.';
        }
        $source->update(['state' => SourceState::Unreadable, 'error_code' => $code, 'error_says' => $says, 'worst' => 'stop',
            'reading' => null]);
        $this->calls->around($source->refresh());
    }

    /** @return array<string, mixed> */
    private function row(Source $source, MediaTrack $track): array
    {
        $sound = $track->sound;
        $picture = $track->picture;
        $rate = max(1, $sound->rate ?? 1);

        return [
            'source_id' => $source->id, 'number' => $track->number, 'kind' => $track->kind->value, 'codec' => $track->codecName(),
            'format' => CodecModules::describeTrack($track), 'language' => $track->language, 'rate' => $sound?->rate,
            'channels' => $sound?->channels(), 'layout' => $sound?->layout->name(),
            'kbps' => $track->kbps(), 'samples' => $sound === null ? null : $track->timeline->samples(),
            'starts' => $sound === null ? round($picture->startOffset ?? 0.0, 6) : round($track->timeline->startOffset / $rate, 6),
            'width' => $picture?->width, 'height' => $picture?->height, 'per_second' => $picture === null ? null
                : round($picture->perSecond, 3),
        ];
    }
}
