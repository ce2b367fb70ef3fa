<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Sources\Models\Group;
use App\Sources\Models\Source;

/** Puts sources into groups and out of them; a group in which nothing is any more goes. */
final class GroupSources
{
    private const LONGEST_TITLE = 120;

    public function __construct(private readonly GatherCall $calls) {}

    /**
     * @param  list<int>  $sources
     * @param  string  $title  empty: into none
     */
    public function into(array $sources, string $title): void
    {
        $title = mb_substr(trim(mb_scrub($title)), 0, self::LONGEST_TITLE);
        $group = $title === '' ? null : Group::query()->firstOrCreate(['title' => $title]);
        foreach (array_chunk($sources, 500) as $part) {
            Source::query()->whereKey($part)->update(['group_id' => $group?->id]);
        }
        Group::query()->whereNotIn('id', Source::everyOne()->whereNotNull('group_id')->select('group_id'))->delete();
    }

    /** @param  string  $mark  of a drop or a folder: what comes by it later joins the same group */
    public function arrived(Source $source, string $title, string $mark): void
    {
        $title = mb_substr(trim(mb_scrub($title)), 0, self::LONGEST_TITLE);
        if ($title !== '' && $source->group_id === null) {
            $group = Group::query()->createOrFirst(['mark' => hash('xxh128', $mark)], ['title' => $title]);
            $source->update(['group_id' => $group->id]);
            // It may have been read before anybody knew what it belongs to.
            $this->calls->around($source->refresh());
        }
    }
}
