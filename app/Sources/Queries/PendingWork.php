<?php

declare(strict_types=1);

namespace App\Sources\Queries;

use App\Sources\Models\CopiedFolder;
use App\Sources\Models\PacketBordersRow;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use App\Sources\Values\SourceState;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\Builder as QueryBuilder;
use Illuminate\Support\Facades\DB;

/** What is still to be done for sources, each kind as the rows that say so, in their order. */
final class PendingWork
{
    /** @return Builder<Source> those to be read */
    public function readings(): Builder
    {
        return Source::query()->where('state', SourceState::Reading)->orderBy('sources.id');
    }

    /** @return Builder<Track> those to be analysed */
    public function analyses(): Builder
    {
        // As the index says it that holds these alone.
        return Track::query()->from(DB::raw('tracks indexed by tracks_unheard'))
            ->whereRaw("kind = 'sound' and analysis is null and analysis_error is null")
            ->whereExists(fn (QueryBuilder $query) => $this->listed($query)->where('sources.state', SourceState::Ready->value))
            ->orderBy('tracks.id');
    }

    /** @return Builder<PacketBordersRow> sources around whose cuts packets are to be looked at, a row for each cut */
    public function borders(): Builder
    {
        return PacketBordersRow::query()->whereNull('borders')->whereNull('error')
            ->whereExists(fn (QueryBuilder $query) => $this->listed($query))->orderBy('packet_borders.id');
    }

    /** @return Builder<CopiedFolder> those to be copied in */
    public function copies(): Builder
    {
        return CopiedFolder::query()->where('state', CopiedFolder::COPYING)->orderBy('copied_folders.id');
    }

    private function listed(QueryBuilder $query): QueryBuilder
    {
        return $query->selectRaw('1')->from('sources')->whereColumn('sources.id', 'source_id')->whereNull('sources.removed_at');
    }
}
