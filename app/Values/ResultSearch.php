<?php

declare(strict_types=1);

namespace App\Values;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\HasMany;

/** Which results are looked for, as an address says it. */
final readonly class ResultSearch
{
    public const SHOWN = ['' => 'all', 'done' => 'done', 'failed' => 'failed', 'open' => 'not done yet', 'bin' => 'in the bin'];

    public function __construct(public ?int $order, public string $find, public string $show, public string $folder) {}

    public function isNarrow(): bool
    {
        return $this->find !== '' || $this->show !== '' || $this->folder !== '';
    }

    /**
     * @template T of Builder|HasMany
     *
     * @param  T  $query  of results
     * @return T
     */
    public function narrow(Builder|HasMany $query): Builder|HasMany
    {
        $like = fn (string $text): string => addcslashes($text, '%_\\');
        if ($this->find !== '') {
            $query->whereRaw("(results.name like ? escape '\\' or source_name like ? escape '\\')",
                array_fill(0, 2, '%'.$like($this->find).'%'));
        }
        if ($this->folder !== '') {
            $query->whereRaw("path like ? escape '\\' and path not like ? escape '\\'",
                [$like($this->folder).'/%', $like($this->folder).'/%/%']);
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
