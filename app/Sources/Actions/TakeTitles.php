<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Sources\Models\Source;
use App\Sources\Values\SourceState;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Octavox\Core\Disc\StatedTitle;

/** Makes sources of the titles of a video disc, each by itself; they lie on the disc, and the disc stays where it is. */
final class TakeTitles
{
    public function __construct(private readonly GroupSources $groups, private readonly WorkSignal $signal) {}

    /**
     * Of a disc that came in like any file: that file becomes the first title, the others join it.
     *
     * @param  list<int>  $titles  numbers of all
     */
    public function others(Source $disc, array $titles): void
    {
        if ($titles === [] || $disc->stated !== null) {
            return;
        }
        $disc->update(['stated' => (string) new StatedTitle($titles[0]), 'name' => (new StatedTitle($titles[0]))->name($disc->path)]);
        foreach (array_slice($titles, 1) as $number) {
            $this->title($disc->path, $number, $disc->folder, $disc->origin);
        }
        $this->gather($disc->path, $disc->folder);
    }

    /**
     * Of a disc from which somebody chooses.
     *
     * @param  list<int>  $titles
     * @return list<Source>
     */
    public function chosen(string $path, array $titles, string $folder, string $origin): array
    {
        $sources = array_map(fn (int $number): Source => $this->title($path, $number, $folder, $origin), $titles);
        $this->gather($path, $folder);

        return $sources;
    }

    private function title(string $path, int $number, string $folder, string $origin): Source
    {
        $stated = new StatedTitle($number);
        /** @var ?Source $known */
        $known = Source::everyOne()->where('path', $path)->where('stated', (string) $stated)->first();
        if ($known !== null) {
            $known->update(['removed_at' => null]);
            if ($known->isReady()) {
                return $known;
            }
        }
        $source = $known ?? Source::query()->create(['name' => $stated->name($path), 'folder' => $folder, 'path' => $path,
            'origin' => $origin, 'bytes' => (int) filesize($path), 'stated' => (string) $stated, 'state' => SourceState::Reading]);
        $source->update(['state' => SourceState::Reading]);
        $this->signal->announce(WorkKind::Reading);

        return $source;
    }

    /** More than one are a group under the name of the disc. */
    private function gather(string $path, string $folder): void
    {
        $sources = Source::query()->where('path', $path)->get();
        foreach ($sources->count() > 1 ? $sources : [] as $source) {
            $this->groups->arrived($source, StatedTitle::discName($path), 'disc/'.$folder.'/'.$path);
        }
    }
}
