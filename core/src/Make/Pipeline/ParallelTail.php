<?php

declare(strict_types=1);

namespace Octavox\Core\Make\Pipeline;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\DamageLog;
use Octavox\Core\Codec\StreamSplicer;
use Octavox\Core\Json\Fields;
use Octavox\Core\Make\DecodeDigest;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\NoProgress;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Parallel\ForkedTask;
use Octavox\Core\Plan\SoundPlan;
use Octavox\Core\Plan\Target;
use Octavox\Core\Sound\Level;

/**
 * The later part of one long result, decoded, shaped and encoded in a process of its own while the first one makes what is before.
 * It counts only where it is exactly what the first process would have made: decoders that remember something are compared over a
 * stretch that both make. Whatever befalls that process costs nothing but time.
 */
final class ParallelTail
{
    /** Shorter results are made faster than a process begins. */
    private const SECONDS_WORTH_IT = 60;

    /** Where it begins; sooner where the first process goes on hearing all of the sound. */
    private const HALF = 0.5;

    private const SOONER = 0.45;

    /** Seconds that a decoder hears before the part begins; over the later half of them both must agree. */
    private const LEAD = 1.0;

    /**
     * @param  int  $begins  first sample of the part
     * @param  int  $lead  samples before it that are compared
     * @param  string  $path  of the file it is in
     * @param  ?int  $place  where it begins in that file, which is the result itself; null where the file holds nothing else
     */
    private function __construct(
        public readonly int $begins,
        public readonly int $lead,
        private readonly SoundPlan $plan,
        private readonly string $path,
        private readonly ?int $place,
        private readonly ForkedTask $task,
    ) {}

    public function __destruct()
    {
        $this->task->abandon();
        if ($this->place === null && is_file($this->path)) {
            unlink($this->path);
        }
    }

    /**
     * Null where it is not worth it, not possible, or where no process can be started.
     *
     * @param  float  $gain  factor that reaches the level that is asked for
     * @param  string  $path  of a file that does not exist yet, for what the other process makes, or of the result
     * @param  ?int  $samplesAt  where the samples of the result begin in that file, if the part is to be written there
     */
    public static function start(SoundInput $input, StreamSplicer $splicer, float $gain, Target $target, string $path,
        ?int $samplesAt = null): ?self
    {
        $plan = $input->plan;
        $share = $splicer->hearsAll() ? self::SOONER : self::HALF;
        $begins = (int) ($plan->samples * $share / $splicer->step()) * $splicer->step();
        $lead = min($begins, (int) (self::LEAD * $input->from->rate));
        $needed = ($samplesAt === null ? 2 : 1) * $target->predictedBytes;
        if ($plan->samples < self::SECONDS_WORTH_IT * $plan->audio->rate || ! (new Filters($input))
            ->isDivisible() || (float) @disk_free_space($target->folder) < $needed) {
            return null;
        }
        $place = $samplesAt === null ? null : $samplesAt + $begins * $plan->audio->frameBytes();
        $task = ForkedTask::begin(fn (): array => (new TailMaker($input, $splicer, $begins, $lead, $gain))->make($path, $place));

        return $task === null ? null : new self($begins, intdiv($lead, 2), $plan, $path, $place, $task);
    }

    /**
     * Whether the part is there and goes on from what was made before it. Waits for it.
     *
     * @param  string  $lead  XXH128 of the last {@see self::$lead} samples before it, as float32
     */
    public function follows(string $lead, Progress $progress): bool
    {
        return $this->said($progress)?->text('lead') === $lead;
    }

    /**
     * Whether the part is there and was made of exactly these samples. Waits for it.
     *
     * @param  string  $samples  XXH128 of them as float32
     */
    public function isOf(string $samples, Progress $progress): bool
    {
        return $this->said($progress)?->text('samples') === $samples;
    }

    /**
     * Its packets, as they stand in the whole.
     *
     * @throws BytesMissing where the part is in the result and not all of it is there
     * @throws FileUnreadable
     */
    public function stretch(): Stretch
    {
        $file = FileBytes::open($this->path);

        return $this->place === null ? Stretch::in($file, 0, $file->size())
            : Stretch::in($file, $this->place, $this->frames() * $this->plan->audio->frameBytes());
    }

    /** XXH128 of its packets. */
    public function hash(): string
    {
        return $this->said()?->text('packets') ?? '';
    }

    /**
     * What its packets were found to decode to; null where nobody has decoded just these.
     *
     * @param  string  $packets  XXH128 of them
     */
    public function digest(string $packets): ?DecodeDigest
    {
        $said = $this->said()?->optional('digest');
        $digest = $said === null ? null : DecodeDigest::fromFields($said, $this->audio(), 0);

        return $digest !== null && $digest->packets === $packets && $digest->samples === $this->said()?->text('samples') ? $digest : null;
    }

    /** Tells what the other process has found damaged. */
    public function tell(DamageLog $damage): void
    {
        foreach ($this->said()?->list('damage') ?? [] as $place) {
            if (is_array($place) && is_int($place[0] ?? null) && is_int($place[1] ?? null)) {
                $damage->add($place[0], $place[1]);
            }
        }
    }

    public function level(): Level
    {
        return new Level($this->said()?->float('peak') ?? 0.0, $this->said()?->float('rms') ?? 0.0);
    }

    /** Of the sound as it came in, where its level is changed. */
    public function incoming(): Level
    {
        return new Level($this->said()?->float('in_peak') ?? 0.0, $this->said()?->float('in_rms') ?? 0.0);
    }

    /** Samples of a channel. */
    public function frames(): int
    {
        return $this->said()?->number('frames') ?? 0;
    }

    /** As its encoder gave it at its end. */
    public function audio(): AudioFormat
    {
        return $this->plan->audio->withConfig($this->said()?->bytes('config') ?? '');
    }

    /** What the other process has said, once it has ended; null where it died. */
    private function said(Progress $progress = new NoProgress): ?Fields
    {
        $said = $this->task->result(fn () => $progress->reached(Phase::Making, $this->plan->samples, $this->plan->samples));

        return $said === null ? null : new Fields($said);
    }
}
