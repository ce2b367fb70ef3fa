<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Values\SourceState;
use Illuminate\Database\Eloquent\Collection;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Media\Codec;

/**
 * A folder that holds the recording of a call — one picture with its sound, the same sound in a file of its own, perhaps what was written
 * meanwhile — is one source: that with the best sound stands for it, and what was written becomes its note.
 */
final class GatherCall
{
    /** So much may their lengths differ: seconds, or a share of the whole. */
    private const SECONDS_OFF = 3.0;

    private const SHARE_OFF = 0.02;

    private const MOST_FILES = 6;

    private const MOST_TEXT = 4000;

    /** Once a source is read, or is none. */
    public function around(Source $source): void
    {
        if ($source->group_id === null || $source->folder === '' || $source->belongs_to !== null) {
            return;
        }
        $all = Source::query()->with('tracks')->where('group_id', $source->group_id)->where('folder', $source->folder)
            ->orderBy('id')->limit(self::MOST_FILES + 1)->get();
        $texts = $all->filter($this->isText(...));
        $leader = $all->first(fn (Source $one): bool => $all->contains('belongs_to', $one->id));
        if ($leader instanceof Source) {
            // It was gathered before what was written came.
            $this->note($leader, $texts->whereNull('belongs_to')->values());

            return;
        }
        $media = $all->diff($texts)->values();
        if ($all->count() > self::MOST_FILES
            || $media->contains(fn (Source $one): bool => ! $one->isReady() || $one->soundTracks()->isEmpty()
            || $one->belongs_to !== null)) {
            return;
        }
        [$pictures, $sounds] = [$media->whereNotNull('picture'), $media->whereNull('picture')];
        /** @var ?Source $picture */
        $picture = $pictures->first();
        if ($picture === null || $pictures->count() !== 1 || $sounds->isEmpty()
            || $sounds->contains(fn (Source $one): bool => ! $this->isAsLong($one, $picture))) {
            return;
        }
        $this->gather($media, $texts);
    }

    private function isText(Source $source): bool
    {
        return $source->state === SourceState::Unreadable
            && in_array(strtolower(pathinfo($source->name, PATHINFO_EXTENSION)), ['txt', 'vtt',
                'chat'], true);
    }

    private function isAsLong(Source $sound, Source $picture): bool
    {
        $off = abs((float) $sound->seconds - (float) $picture->seconds);

        return $off <= max(self::SECONDS_OFF, self::SHARE_OFF * (float) $picture->seconds);
    }

    /**
     * @param  Collection<int, Source>  $media
     * @param  Collection<int, Source>  $texts
     */
    private function gather(Collection $media, Collection $texts): void
    {
        $best = $media->sortByDesc(fn (Source $one): array => $this->worth($one))->first();
        if ($best === null) {
            return;
        }
        Source::query()->whereKey($media->modelKeys())->whereKeyNot($best->id)->update(['belongs_to' => $best->id]);
        $this->note($best, $texts);
    }

    /**
     * What was written becomes its note, where it has none.
     *
     * @param  Collection<int, Source>  $texts
     */
    private function note(Source $best, Collection $texts): void
    {
        $written = $texts->map(fn (Source $one): string => $this->text($one->path))->all();
        $folder = dirname($best->path);
        foreach ($best->isOurs() ? [] : (glob(addcslashes($folder, '*?[\\').'/*.{txt,vtt,chat}', GLOB_BRACE) ?: []) as $path) {
            $written[] = is_link($path) ? '' : $this->text($path);
        }
        Source::query()->whereKey($texts->modelKeys())->update(['belongs_to' => $best->id]);
        $note = mb_substr(trim(implode("\n", array_filter($written))), 0, self::MOST_TEXT);
        if ($best->note === '' && $note !== '') {
            $best->update(['note' => $note]);
        }
    }

    /**
     * @return array{int, float, int} whether it is lossless, how much it tells a second, and a file of its own before the picture's sound
     */
    private function worth(Source $source): array
    {
        /** @var Track $track */
        $track = $source->soundTracks()->first();
        $codec = Codec::tryFrom((string) $track->codec);
        $isLossless = $codec !== null && CodecModules::of($codec)->isLossless() && CodecModules::of($codec)->isDecoded();

        return [$isLossless ? 1 : 0, round((float) $track->kbps / 8), $source->picture === null ? 1 : 0];
    }

    private function text(string $path): string
    {
        $text = (string) @file_get_contents($path, length: 4 * self::MOST_TEXT);

        return mb_check_encoding($text, 'UTF-8') && preg_match('/[\x00-\x08]/', $text) !== 1 ? trim($text) : '';
    }
}
