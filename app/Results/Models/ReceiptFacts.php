<?php

declare(strict_types=1);

namespace App\Results\Models;

use App\Lists\Humanize;
use Octavox\Core\Failure;
use Octavox\Core\Make\LevelFigures;
use Octavox\Core\Make\Receipt;
use Octavox\Core\Make\SoundReceipt;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Sound\InvalidLevel;

/** What a receipt tells, line by line, as people read it. */
final readonly class ReceiptFacts
{
    private function __construct(private Result $result, private Receipt $receipt, private Plan $plan) {}

    /** Null where it is not done, or where what is kept of it is not understood any more. */
    public static function of(Result $result): ?self
    {
        $receipt = $result->measuredAs();
        try {
            return $receipt === null ? null : new self($result, $receipt, $result->plannedAs());
        } catch (Failure) {
            return null;
        }
    }

    /**
     * @return list<array{string, string}> what it is called, and what it is
     *
     * @throws InvalidLevel
     */
    public function lines(): array
    {
        $receipt = $this->receipt;
        $lines = [...$this->level(), ...$this->sounds(), ...$this->format()];
        $lines[] = ['Size', sprintf('%s bytes; %s in the source', number_format($receipt->bytes), number_format($receipt->sourceBytes))];
        $lines = [...$lines, ...$this->levels()];
        $lines[] = ['Verified', $receipt->identical ? 'read back; every sample is the one that was meant'
            : 'read back and decoded; length, layout and level agree'];
        $speed = $this->result->speed === null ? '' : number_format($this->result->speed, 0).' × real time';
        $lines[] = ['Made', implode('; ', array_filter([$speed, implode(', ', PlanWords::steps($this->plan))]))];

        return [...$lines, ...array_map(fn (string $note): array => ['Note', $note], $receipt->notes)];
    }

    public function checksum(): string
    {
        return 'xxh128:'.$this->receipt->checksum;
    }

    public function bytes(): int
    {
        return $this->receipt->bytes;
    }

    /** @return array<string, string> what was measured `before` or `after` the level was set; none where it was left */
    public function figures(string $side): array
    {
        $level = $this->receipt->level;

        return $level === null ? [] : self::shown($side === 'before' ? $level->before : $level->after);
    }

    /** @return array<string, string> */
    private static function shown(LevelFigures $figures): array
    {
        $units = [
            'loudness' => [$figures->loudness, 'LUFS'], 'range' => [$figures->range, 'LU'], 'peak' => [$figures->peak, 'dBFS'],
            'true peak' => [$figures->truePeak, 'dBFS'], 'RMS' => [$figures->rms, 'dBFS'],
        ];

        return array_map(fn (array $one): string => number_format((float) $one[0], 1).' '.$one[1],
            array_filter($units, fn (array $one): bool => $one[0] !== null));
    }

    /** @return list<array{string, string}> */
    private function level(): array
    {
        $level = $this->receipt->level;
        if ($level === null) {
            return [];
        }

        return [['Level set',
            sprintf('%+.1f dB, plain gain', $level->gain).($level->isHeld ? '; the ceiling of the true peak kept it from more' : '')]];
    }

    /** @return list<array{string, string}> */
    private function sounds(): array
    {
        return count($this->receipt->sounds) < 2 ? []
            : array_map(fn (SoundReceipt $sound, int $index): array => ['Sound track '.($index + 1), sprintf(
                '%s, %s, %s samples, %s from track %d%s', $sound->format, $sound->layout, number_format($sound->samples),
                $sound->isKept ? 'kept' : 'remade', $sound->track,
                $sound->after === null ? '' : sprintf('; peak %s before, %s after', Humanize::decibels($sound->before?->peakDecibels()),
                    Humanize::decibels($sound->after->peakDecibels())),
            )], $this->receipt->sounds, array_keys($this->receipt->sounds));
    }

    /** @return list<array{string, string}> */
    private function format(): array
    {
        if ($this->plan->isSilent()) {
            return [['Sound', 'none; the picture lasts '.Humanize::clock($this->plan->seconds())]];
        }

        return [
            ['Samples', sprintf('%s at %s, %s', number_format($this->receipt->samples), Humanize::rate($this->receipt->rate),
                $this->receipt->layout)],
            ['Format', $this->receipt->format],
        ];
    }

    /** @return list<array{string, string}> */
    private function levels(): array
    {
        if ($this->plan->isSilent() || $this->receipt->level !== null) {
            return [];
        }
        if ($this->receipt->after === null) {
            return [['Level', 'that of the source: nothing was decoded for it']];
        }
        $says = fn ($level): string => sprintf('peak %s, RMS %s', Humanize::decibels($level?->peakDecibels()),
            Humanize::decibels($level?->rmsDecibels()));

        return [['Level before', $says($this->receipt->before)], ['Level after', $says($this->receipt->after)]];
    }
}
