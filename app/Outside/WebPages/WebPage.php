<?php

declare(strict_types=1);

namespace App\Outside\WebPages;

use App\Files\MediaType;
use App\Files\TakenNames;
use App\Results\Models\Result;
use App\Results\Queries\ResultWaveform;
use App\Sources\Queries\SourceCover;
use Illuminate\Support\Collection;
use Octavox\Core\Analysis\WaveformLayout;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Plan\PlanUnreadable;
use Octavox\Core\Tag\Cover;

/** A page with a player for results: one HTML file with everything in it but the sound, which lies beside. */
final class WebPage
{
    /** What every browser of today plays. */
    private const PLAYED = ['mp3', 'm4a', 'm4r', 'aac', 'adts', 'wav', 'flac', 'opus', 'ogg', 'vorbis'];

    private const STEPS = 160;

    private const MOST_COVER = 2_000_000;

    public function __construct(private readonly ResultWaveform $waveforms, private readonly SourceCover $covers) {}

    /**
     * Those of them that can be on a page: sound that browsers play.
     *
     * @param  Collection<int, Result>  $results
     * @return Collection<int, Result>
     */
    public function playable(Collection $results): Collection
    {
        return $results->filter(fn (Result $one): bool => $one->isThere() && $one->plannedAs()->picture === null
            && in_array($one->plannedAs()->target->container, self::PLAYED, true))->values();
    }

    /**
     * The page itself.
     *
     * @param  Collection<int, Result>  $results
     * @param  ?\Closure(Result): string  $address  of each sound; null where it lies beside the page
     *
     * @throws PlanUnreadable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function html(Collection $results, PageChoices $choices, ?\Closure $address = null): string
    {
        $names = new TakenNames;
        $sounds = [];
        foreach ($results as $result) {
            $name = $names->free(basename($result->pathInOrder()));
            $sounds[] = [$this->sound($result, $name, $choices), $address === null ? '' : $address($result)];
        }

        $data = array_map(fn (array $one): array => ['src' => $one[1] === '' ? $one[0]->address() : $one[1], 'title' => $one[0]->title,
            'under' => $one[0]->under, 'seconds' => round($one[0]->seconds, 3), 'wave' => $one[0]->waveform], $sounds);

        return view('outside.web-player', ['choices' => $choices, 'sounds' => $sounds, 'data' => $data,
            'cover' => $choices->hasCover ? $this->cover($results) : ''])->render();
    }

    /** What is written into another page to show it there. */
    public function snippet(PageChoices $choices, int $count): string
    {
        return sprintf('<iframe src="%s" title="%s" width="%d" height="%d" loading="lazy" style="border:0;max-width:100%%"></iframe>',
            rawurlencode(self::name($choices)), e($choices->title), $choices->width, 190 + ($count > 1 ? min(8, $count) * 44 : 0));
    }

    /** What the page is called. */
    public static function name(PageChoices $choices): string
    {
        return LegalName::from($choices->title).'.html';
    }

    /**
     * @throws PlanUnreadable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function sound(Result $result, string $name, PageChoices $choices): PageSound
    {
        $tags = $result->plannedAs()->tags->values();

        return new PageSound($name, MediaType::name($result->plannedAs()->target->container, false),
            $tags['title'] ?? pathinfo($result->name, PATHINFO_FILENAME),
            implode(', ', array_filter([$tags['artist'] ?? '', $tags['album'] ?? ''])),
            $result->plannedAs()->seconds(), $choices->hasWaveform ? $this->heights($result) : []);
    }

    /**
     * @return list<int>
     *
     * @throws BytesMissing
     * @throws PlanUnreadable
     * @throws FileUnreadable
     */
    private function heights(Result $result): array
    {
        $waveform = $this->waveforms->after($result) ?? $this->waveforms->before($result);
        if ($waveform === null || $waveform->layout->samples === 0) {
            return [];
        }
        // As fine as the file has it, so that several steps make one bar; each has two numbers a channel.
        [, , $steps] = $waveform->window(0, $waveform->layout->samples, 64 * self::STEPS);
        $peaks = array_map(abs(...), WaveformLayout::values($steps));
        $wide = 2 * $waveform->layout->channels;
        $each = max(1, max(1, intdiv(intdiv(count($peaks), max(1, $wide)), self::STEPS)) * $wide);
        $heights = array_map(fn (array $part): int => (int) max([0, ...$part]), array_chunk($peaks, $each));
        $most = max([1, ...$heights]);

        return array_map(fn (int $height): int => (int) round(100 * $height / $most), array_slice($heights, 0, self::STEPS + 8));
    }

    /**
     * The picture of the first that has one, as its file has it.
     *
     * @param  Collection<int, Result>  $results
     *
     * @throws PlanUnreadable
     */
    private function cover(Collection $results): string
    {
        foreach ($results as $result) {
            $own = $result->plannedAs()->cover;
            $source = $own === null ? $result->source()->first() : null;
            $path = $own ?? ($source === null ? null : $this->covers->find($source)[1] ?? null) ?? '';
            $bytes = is_file($path) && filesize($path) < self::MOST_COVER ? (string) file_get_contents($path) : '';
            $cover = Cover::recognise($bytes);
            if ($cover !== null) {
                return sprintf('data:%s;base64,%s', $cover->type, base64_encode($cover->bytes));
            }
        }

        return '';
    }
}
