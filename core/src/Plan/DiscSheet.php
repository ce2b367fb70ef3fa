<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Container\Cue\SheetUnusable;
use Octavox\Core\Container\Cue\SheetWriter;
use Octavox\Core\Media\Codec;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** The sheet of an audio disc that results make together, each a track: IEC 60908 takes 16 bits, 44,100 Hz, two channels, 99 tracks. */
final class DiscSheet
{
    private const MOST_TRACKS = 99;

    /**
     * @param  list<Plan>  $plans  in the order of the tracks
     * @param  list<string>  $names  of their files, beside the sheet
     *
     * @throws SheetUnusable where a disc cannot hold them
     */
    public static function text(array $plans, array $names): string
    {
        $tracks = [];
        foreach ($plans as $index => $plan) {
            $audio = $plan->picture === null ? $plan->sound()?->audio : null;
            $fits = $plan->target->container === 'wav' && $audio?->codec === Codec::Pcm && $audio->rate === 44_100
                && $audio->channels() === 2 && $audio->bits() === 16;
            if (! $fits) {
                throw SheetUnusable::noDisc($plan->path());
            }
            $tracks[] = [$names[$index] ?? $plan->name(), self::named($plan->tags, $names[$index] ?? $plan->name())];
        }
        if ($tracks === [] || count($tracks) > self::MOST_TRACKS) {
            throw SheetUnusable::length(count($tracks), self::MOST_TRACKS);
        }

        return SheetWriter::text($tracks);
    }

    /**
     * Says before anything is made whether a sheet can be written of it.
     *
     * @param  list<Plan>  $plans  in the order of the tracks
     * @param  string  $sheet  name of the sheet
     *
     * @throws SheetUnusable where a disc cannot hold them, or a sheet not name them
     */
    public static function check(array $plans, string $sheet): void
    {
        self::text($plans, []);
        $folders = array_unique(array_map(fn (Plan $plan): string => dirname($plan->path()), $plans));
        if (count($folders) > 1) {
            throw SheetUnusable::scattered($sheet);
        }
    }

    /** A track without a title is called as its file is. */
    private static function named(Tags $tags, string $name): Tags
    {
        return ($tags->values()['title'] ?? '') !== '' ? $tags
            : $tags->with(TagField::Title, pathinfo($name, PATHINFO_FILENAME));
    }
}
