<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\DamageLog;
use Octavox\Core\Codec\StreamSplicer;
use Octavox\Core\Codec\StreamSplicers;
use Octavox\Core\Json\Fields;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\NoProgress;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Parallel\ForkedTask;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Sound\BlockSplitter;
use Octavox\Core\Sound\Level;
use Octavox\Core\Sound\LevelMeter;

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
     * @param  int  $samples  of the whole
     * @param  string  $path  of the file it is in
     * @param  ?int  $place  where it begins in that file, which is the result itself; null where the file holds nothing else
     */
    private function __construct(public readonly int $begins, public readonly int $lead, private readonly int $samples, private readonly AudioFormat $audio, private readonly string $path, private readonly ?int $place, private readonly ForkedTask $aside)
    {
    }

    public function __destruct()
    {
        $this->aside->abandon();
        if ($this->place === null && is_file($this->path)) {
            unlink($this->path);
        }
    }

    /**
     * Null where it is not worth it, not possible, or where no process can be started.
     *
     * @param  AudioFormat  $from  of the source
     * @param  string  $path  of a file that does not exist yet, for what the other process makes, or of the result
     * @param  ?int  $samplesAt  where the samples of the result begin in that file, if the part is to be written there
     */
    public static function start(Plan $plan, AudioFormat $from, StreamSplicer $joining, float $gain, string $path, ?int $samplesAt = null): ?self
    {
        $share = $joining->hearsAll() ? self::SOONER : self::HALF;
        $begins = (int) ($plan->samples * $share / $joining->step()) * $joining->step();
        $lead = min($begins, (int) (self::LEAD * $from->rate));
        if ($plan->samples < self::SECONDS_WORTH_IT * $plan->audio->rate || ! Shaping::isDivisible($from, $plan->sounds()[0]) || (float) @disk_free_space($plan->folder) < ($samplesAt === null ? 2 : 1) * $plan->predictedBytes) {
            return null;
        }
        $place = $samplesAt === null ? null : $samplesAt + $begins * $plan->audio->frameBytes();
        $aside = ForkedTask::begin(fn (): array => self::make($plan, $begins, $lead, $gain, $path, $place));

        return $aside === null ? null : new self($begins, intdiv($lead, 2), $plan->samples, $plan->audio, $path, $place, $aside);
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
     */
    public function stretch(): Stretch
    {
        $file = FileBytes::open($this->path);

        return $this->place === null ? Stretch::in($file, 0, $file->size()) : Stretch::in($file, $this->place, $this->frames() * $this->audio->frameBytes());
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
    public function heard(string $packets): ?DecodeDigest
    {
        $heard = $this->said()?->optional('heard');
        $heard = $heard === null ? null : DecodeDigest::fromFields($heard, $this->audio(), 0);

        return $heard !== null && $heard->packets === $packets && $heard->samples === $this->said()?->text('samples') ? $heard : null;
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
        return $this->audio->withConfig((string) hex2bin($this->said()?->text('config') ?? ''));
    }

    /** What the other process has said, once it has ended; null where it died. */
    private function said(Progress $progress = new NoProgress): ?Fields
    {
        $said = $this->aside->result(fn () => $progress->reached(Phase::Making, $this->samples, $this->samples));

        return $said === null ? null : new Fields($said);
    }

    /**
     * The other end: makes the part and says what it is.
     *
     * @return array<string, mixed>
     */
    private static function make(Plan $plan, int $begins, int $lead, float $gain, string $path, ?int $place): array
    {
        $source = Opener::open($plan->source, $plan->stated);
        $track = $source->track($plan->track);
        $audio = $track?->sound;
        if ($track === null || $audio === null || $source->media->source()->size() !== $plan->sourceBytes) {
            throw SourceChanged::track($plan->source);
        }
        $joining = StreamSplicers::of($plan->audio) ?? throw CannotPlan::stopped($plan->source, 'Its parts cannot be joined.', 'Make it in one.');
        $encoder = $joining->encoder();
        $listener = $plan->audio->codec === Codec::Pcm ? null : VerifyingDecoder::start($encoder->audio(), 0, $plan->samples - $begins);
        $sink = $place === null ? FileSink::create($path) : FileSink::from($path, $place);
        $sink->needsNoChecksum();
        $meter = new LevelMeter;
        $incoming = ! $joining->hearsAll() && Shaping::changesLevel($audio, $plan->sounds()[0], $gain) ? new LevelMeter : null;
        [$before, $samples, $hash] = [hash_init('xxh128'), hash_init('xxh128'), hash_init('xxh128')];
        $write = function (iterable $made) use ($joining, $begins, $sink, $listener, $hash): void {
            foreach ($made as $packet) {
                $packet = $joining->packet($packet, $begins);
                $sink->write($packet->data);
                $listener?->take($packet);
                hash_update($hash, $packet->data);
            }
        };
        $done = -$lead;
        foreach (BlockSplitter::at(Shaping::of($source, $track, $audio, $plan->sounds()[0], $plan->moment, $plan->lasts, $gain, $begins - $lead, $incoming, $lead), [$lead - intdiv($lead, 2), $lead]) as $block) {
            if ($done >= 0) {
                // What the first process hears too it measures itself.
                $joining->hearsAll() ? hash_update($samples, $block->bytes()) : $meter->measure($block);
                $write($encoder->encode($block));
            } elseif ($done >= -intdiv($lead, 2)) {
                hash_update($before, $block->bytes());
            }
            $done += $block->frames;
        }
        $write($encoder->finish());
        $sink->close();

        $heard = $listener?->finish($encoder->audio(), fn () => null);

        return ['damage' => $source->damage->places(), 'heard' => $heard?->toArray(), 'lead' => hash_final($before), 'samples' => hash_final($samples), 'frames' => $done, 'packets' => hash_final($hash), 'peak' => $meter->level()->peak, 'rms' => $meter->level()->rms, 'in_peak' => $incoming?->level()->peak ?? 0.0, 'in_rms' => $incoming?->level()->rms ?? 0.0, 'config' => bin2hex($joining->later($encoder->audio())->config)];
    }
}
