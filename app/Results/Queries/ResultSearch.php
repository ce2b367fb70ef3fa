<?php

declare(strict_types=1);

namespace App\Results\Queries;

use App\Database\FoundNames;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use Illuminate\Database\Eloquent\Builder;

/** Which results are looked for, as an address says it. */
final readonly class ResultSearch
{
    public const SHOWN = ['' => 'all', 'done' => 'done', 'failed' => 'failed', 'open' => 'not done yet', 'bin' => 'in the bin'];

    public function __construct(public ?int $order, public string $find, public string $show, public string $folder) {}

    public function isNarrow(): bool
    {
        return $this->find !== '' || $this->show !== '' || $this->folder !== '';
    }

    /** Whether nothing but a part of the name is looked for. */
    public function isFindAlone(): bool
    {
        return $this->show === '' && $this->folder === '' && $this->order === null;
    }

    /**
     * Narrows a query of results; a part of the name of three letters or more was looked up before.
     *
     * @param  Builder<Result>  $query
     * @return Builder<Result>
     */
    public function narrow(Builder $query): Builder
    {
        if ($this->order !== null) {
            $query->where('order_id', $this->order);
        }
        if ($this->find !== '' && FoundNames::isShort($this->find)) {
            $query->where('results.id', '>', FoundNames::from(Result::query()->max('id')))
                ->whereRaw("(results.name like ? escape '\\' or source_name like ? escape '\\')",
                    array_fill(0, 2, FoundNames::pattern($this->find)));
        }
        if ($this->folder !== '') {
            // All paths that begin with the folder and a slash; the sign behind the slash is the figure 0.
            $query->where('path', '>', $this->folder.'/')->where('path', '<', $this->folder.'0')
                ->whereRaw("instr(substr(path, ?), '/') = 0", [mb_strlen($this->folder) + 2]);
        }
        match ($this->show) {
            'done' => $query->where('state', ResultState::Done)->whereNull('binned'),
            'failed' => $query->where('state', ResultState::Failed),
            'open' => $query->whereIn('state', [ResultState::Waiting, ResultState::Making]),
            'bin' => $query->whereNotNull('binned'),
            default => null,
        };

        return $query;
    }
}
