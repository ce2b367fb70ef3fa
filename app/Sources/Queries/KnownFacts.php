<?php

declare(strict_types=1);

namespace App\Sources\Queries;

use App\Sources\Models\PacketBordersRow;
use App\Sources\Models\Source;
use App\Sources\Models\Track;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Analysis\SilenceCut;
use Octavox\Core\Analysis\TriedSizes;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Media\PacketBorders;
use Octavox\Core\Plan\MissingFacts;
use Octavox\Core\Plan\SourceKnowledge;
use Octavox\Core\Sound\InvalidTime;

/** What the database knows of sources beyond their readings. */
final class KnownFacts
{
    public function __construct(private readonly OpenWaveform $waveforms) {}

    /**
     * @param  list<int>  $cut  numbers of the sources that are cut
     * @return array<int, array<string, PacketBorders>> by source, then by query
     */
    public function borders(array $cut): array
    {
        $found = [];
        foreach ($cut === [] ? [] : PacketBordersRow::query()->whereIn('source_id', $cut)->whereNotNull('borders')->get() as $row) {
            $found[$row->source_id][$row->query] = $row->found();
        }

        return array_map(array_filter(...), $found);
    }

    /**
     * @param  array<string, PacketBorders>  $borders
     * @param  array<string, string>  $silences
     */
    public function gather(Source $source, array $borders, array $silences = []): SourceKnowledge
    {
        $measured = array_filter($source->tracks->mapWithKeys(fn (Track $track): array => [$track->number => $track->measured()])->all());
        $packed = array_filter(array_map(fn (Measurements $one): ?TriedSizes => $one->packed, $measured));

        return new SourceKnowledge($borders, $measured, $packed, $silences);
    }

    /**
     * Pieces that are left when silences are left out, from the waveforms that are drawn already.
     *
     * @return array<string, string> of what is drawn, by {@see SourceKnowledge::silenceKey()}
     *
     * @throws InvalidTime
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function silences(Source $source, MissingFacts $wanted): array
    {
        $found = [];
        foreach ($wanted->silences as $key => [$number, $cut]) {
            $track = $source->tracks->firstWhere('number', $number);
            $waveform = $track?->measured() === null ? null : $this->waveforms->open($track);
            $pieces = $waveform === null ? null : SilenceCut::parse($cut)?->within($waveform);
            $found = $pieces === null ? $found : [...$found, $key => $pieces];
        }

        return $found;
    }
}
