<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Sources\Models\PacketBordersRow;
use App\Sources\Models\Source;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Octavox\Core\Plan\MissingFacts;

/** Has the packets around cuts looked at. */
final class AskForBorders
{
    /** A child that was asked so long ago is asked again. */
    private const SECONDS_PATIENT = 30;

    public function __construct(private readonly WorkSignal $signal) {}

    /**
     * Has a worker look for borders that nobody has looked for yet.
     *
     * @return ?string why they cannot be found; null where they are looked for
     */
    public function ask(Source $source, MissingFacts $wanted): ?string
    {
        $known = PacketBordersRow::query()->where('source_id', $source->id)->whereIn('query', array_keys($wanted->borders))
            ->get()->keyBy('query');
        $isNew = false;
        foreach (array_keys($wanted->borders) as $query) {
            /** @var ?PacketBordersRow $row */
            $row = $known->get($query);
            if ($row?->error !== null) {
                return $row->error;
            }
            // What is not understood is looked for again.
            $isStrange = $row?->borders !== null && $row->found() === null;
            if ($row === null || $isStrange || $row->isWaiting() && $row->updated_at < now()->subSeconds(self::SECONDS_PATIENT)) {
                PacketBordersRow::query()->updateOrCreate(['source_id' => $source->id, 'query' => $query], ['updated_at' => now(),
                    'borders' => null]);
                $isNew = true;
            }
        }
        if ($isNew) {
            $this->signal->announce(WorkKind::Borders);
        }

        return null;
    }
}
