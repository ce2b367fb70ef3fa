<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\PlannedSound;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\AppliedGain;
use Octavox\Core\Sound\LevelTarget;

/** What a sound measured as it was, and the gain that gives it the level that is wished. */
final readonly class LevelSetting
{
    private function __construct(public LevelTarget $target, public Measurements $before, public AppliedGain $gain)
    {
    }

    /** Listens to the shaped sound once; null where its level is left as it is. */
    public static function of(OpenedSource $source, Track $track, AudioFormat $audio, PlannedSound $sound, int $moment, ?int $lasts, Progress $progress): ?self
    {
        $target = $sound->shape->level;
        if ($target === null) {
            return null;
        }
        $listening = new Analyzer($audio->rate, $sound->audio->layout);
        $done = 0;
        foreach (Shaping::unlevelled($source, $track, $audio, $sound, $moment, $lasts) as $block) {
            $listening->take($block);
            $done += $block->frames;
            $progress->reached(Phase::Measuring, min($sound->samples, $done), $sound->samples);
        }
        $before = $listening->finish();

        return new self($target, $before, $target->gain($before->of($target->kind), $before->truePeak()));
    }

    /** @return array<string, mixed> */
    public function toArray(Measurements $after): array
    {
        return [
            'target' => (string) $this->target,
            'gain_db' => round($this->gain->decibels, 2),
            'held_by_ceiling' => $this->gain->held,
            'before' => self::figures($this->before),
            'after' => self::figures($after),
        ];
    }

    /** @return array<string, mixed> */
    private static function figures(Measurements $measured): array
    {
        return array_intersect_key($measured->toArray(), array_flip(['peak_db', 'rms_db', 'true_peak_db', 'lufs', 'range_lu']));
    }
}
