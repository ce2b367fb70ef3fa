<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Failure;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Parallel\Abandoned;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Plan\Steps\LateStart;
use Octavox\Core\Reading\Opener;

/** Reads a file of sound alone back and says what it is. */
final class Verifier
{
    public function __construct(private readonly Plan $plan, private readonly Progress $progress) {}

    /**
     * @param  int  $sourceBytes  of the source's coded sound
     *
     * @throws VerificationFailed
     * @throws Abandoned
     * @throws FileUnreadable
     */
    public function verify(string $temporary, Written $written, int $sourceBytes): Receipt
    {
        $plan = $this->plan->onlySound();
        $capabilities = Outputs::named($this->plan->target->container)?->capabilities();
        $verifier = new SoundVerifier($this->plan->path(), $plan, $this->progress, $capabilities?->holdsLayout !== false);
        try {
            $sum = FileSum::begin($temporary);
            $isHeaderless = $capabilities?->headerless === true;
            $result = Opener::open($temporary, $isHeaderless ? HeaderlessFormat::of($plan->audio) : null);
            $track = $result->sound()[0] ?? throw VerificationFailed::because($this->plan->path(), 'no sound track in it');
            $verifier->requireAlike($track, $written, 'the sound');
            $after = $verifier->compare($result, $track, $written, $sum);
            $setting = $written->encoded?->setting;
            $level = $setting?->receipt(Analyzer::to($result, $track, null, $this->progress));
        } catch (VerificationFailed|Abandoned $failure) {
            throw $failure;
        } catch (Failure $failure) {
            throw VerificationFailed::because($this->plan->path(), $failure->getMessage());
        }
        $went = $written->encoded?->level;

        return new Receipt(
            $track->timeline->samples(), $plan->audio->rate, $plan->audio->layout->name(), CodecModules::describe($plan->audio),
            FileBytes::open($temporary)->size(), $sourceBytes,
            $written->encoded->incoming ?? $went ?? $after, $after, CodecModules::of($plan->audio->codec)->isLossless() || $went === null,
            $sum->result(fn () => $this->progress->reached(Phase::Verifying, $plan->samples, $plan->samples)),
            [...SoundVerifier::overload($went ?? $after), ...$verifier->notes(), ...$this->lateStart()], $level,
        );
    }

    /** @return list<string> */
    private function lateStart(): array
    {
        foreach ($this->plan->steps as $step) {
            if ($step->kind instanceof LateStart) {
                return [ucfirst(PlanWords::lateStart($step->kind->samples, $step->kind->rate)).'.'];
            }
        }

        return [];
    }
}
