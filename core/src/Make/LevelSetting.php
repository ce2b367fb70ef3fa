<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Failure;
use Octavox\Core\Make\Pipeline\Filters;
use Octavox\Core\Make\Pipeline\SoundInput;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Sound\AppliedGain;
use Octavox\Core\Sound\LevelTarget;

/** What a sound measured as it was, and the gain that gives it the level that is asked for. */
final readonly class LevelSetting
{
    private function __construct(public LevelTarget $target, public Measurements $before, public AppliedGain $gain) {}

    /**
     * Analyses the sound as it is before its level is set; null where its level is left.
     *
     * @throws Failure
     */
    public static function of(SoundInput $input, Progress $progress): ?self
    {
        $plan = $input->plan;
        $target = $plan->shape->level;
        if ($target === null) {
            return null;
        }
        $analyzer = new Analyzer($input->from->rate, $plan->audio->layout);
        $done = 0;
        foreach ((new Filters($input))->unlevelled() as $block) {
            $analyzer->take($block);
            $done += $block->frames;
            $progress->reached(Phase::Measuring, min($plan->samples, $done), $plan->samples);
        }
        $before = $analyzer->finish();

        return new self($target, $before, $target->gain($before->figure($target->kind), $before->truePeak()));
    }

    public function receipt(Measurements $after): LevelReceipt
    {
        return new LevelReceipt((string) $this->target, round($this->gain->decibels, 2), $this->gain->held, LevelFigures::of($this->before),
            LevelFigures::of($after));
    }
}
