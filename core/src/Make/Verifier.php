<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\PacketLengths;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\Action;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Sound\Level;
use Octavox\Core\Sound\LevelMeter;

/**
 * Reads a result back with the reader, checks length, rate and layout, compares every packet's bytes with what was written,
 * decodes what was encoded to compare it with the sound that went in, and both ends of what was copied.
 */
final class Verifier
{
    /** A lossy encoder may take away the highest sounds, but not this much, in dB; below the floor it may take everything. */
    private const MOST_LOST = 6.0;

    private const MOST_WON = 3.0;

    private const FLOOR = -60.0;

    /** Of full scale. */
    private const FAR_OVER = 4.0;

    private const SECONDS_AT_ENDS = 2;

    /** Seconds by which the length that a source announces may differ from what its packets hold. */
    private const SECONDS_ANNOUNCED_OTHERWISE = 0.25;

    /** @var list<string> what was noticed that does not make the result wrong */
    private array $notes = [];

    public function __construct(private readonly Progress $progress)
    {
    }

    /** @throws VerificationFailed */
    public function verify(Plan $plan, string $temporary, Written $written): Receipt
    {
        try {
            $sum = FileSum::begin($temporary);
            $result = Opener::open($temporary, Outputs::named($plan->format)?->capabilities()->headerless === true ? HeaderlessFormat::of($plan->audio) : null);
            $track = $this->track($plan, $result, $written);
            $after = $this->compare($plan, $result, $track, $written, $sum);
        } catch (VerificationFailed|Abandoned $failure) {
            throw $failure;
        } catch (Failure $failure) {
            throw VerificationFailed::because($plan->path(), $failure->getMessage());
        }
        $bytes = FileBytes::open($temporary);
        $receipt = new Receipt(
            $track->timeline->samples(), $plan->audio->rate, $plan->audio->layout->name(), $plan->audio->label(),
            $bytes->size(), $written->sourceBytes, $written->incoming ?? $written->level ?? $after, $after, $plan->audio->codec->isLossless() || $written->level === null,
            $sum->result($this->sign($plan)), [...self::notes($written->level ?? $after), ...array_unique($this->notes)],
        );

        return $written->setting === null ? $receipt : $receipt->withLevel($written->setting->toArray(Analyzer::to($result, $track, null, $this->progress)));
    }

    private function track(Plan $plan, OpenedSource $result, Written $written): Track
    {
        $track = $result->sound()[0] ?? throw VerificationFailed::because($plan->path(), 'no sound track in it');
        $audio = $track->sound;
        if ($audio === null || $audio->rate !== $plan->audio->rate || $audio->channels() !== $plan->audio->channels() || $audio->codec !== $plan->audio->codec) {
            throw VerificationFailed::because($plan->path(), 'its form differs');
        }
        $samples = $track->timeline->samples();
        if (! self::isAsLong($samples, $plan->samples, $audio, $written)) {
            throw VerificationFailed::because($plan->path(), sprintf('%s samples instead of %s', number_format($samples), number_format($plan->samples)));
        }

        return $track;
    }

    /** Whether a result has the length that was planned. What a source's times announce and what its packets hold can differ a little: a copy has what they hold. */
    public static function isAsLong(int $samples, int $planned, AudioFormat $audio, Written $written): bool
    {
        $isAsHeld = $written->held !== null && abs($samples - $written->held) <= $written->gaps * (intdiv($audio->rate, 1000) + 1) && abs($samples - $planned) <= $audio->rate * self::SECONDS_ANNOUNCED_OTHERWISE;

        return $isAsHeld || abs($samples - $planned) <= PacketLengths::tolerance($audio);
    }

    /**
     * Compares what was read back with what was written.
     *
     * @param  ?Summing  $sum  of the whole result, null where something else is in it too
     *
     * @throws VerificationFailed
     */
    public function compare(Plan $plan, OpenedSource $result, Track $track, Written $written, ?Summing $sum): ?Level
    {
        $agree = null;
        $packets = function () use (&$agree, $plan, $result, $track, $written): bool {
            return $agree ??= $this->packets($plan, $result, $track, $written->seams) === $written->packets($this->sign($plan));
        };
        if ($written->checksum === null || $sum === null ? ! $packets() : $sum->result($this->sign($plan)) !== $written->checksum) {
            throw VerificationFailed::because($plan->path(), 'the bytes on the drive are not those that were written');
        }
        // Equal bytes of PCM are equal samples; decoding them again would tell nothing new about the level.
        if ($plan->audio->codec === Codec::Pcm && $written->level !== null) {
            return new Level(min(1.0, $written->level->peak), $written->level->rms);
        }

        // Copied packets are those of the source, byte for byte; what nobody here decodes can only be compared so.
        if ($plan->action === Action::Kept || $track->sound !== null && ! Codecs::canDecode($track->sound)) {
            if (! $packets()) {
                throw VerificationFailed::because($plan->path(), 'its packets are not those that were written');
            }
            // That they are understood shows at both ends.
            if ($track->sound !== null && Codecs::canDecode($track->sound)) {
                $this->decodeEnds($result, $track, $plan);
            }

            return null;
        }

        $heard = $written->heard;
        if ($heard !== null && self::isTheSame($heard, $track, $written) && $packets()) {
            return self::judge($plan, $heard->frames, $heard->samples, $heard->level, $written->level, $written->samples);
        }

        return $this->decode($plan, $result, $track, $written->level, $written->samples);
    }

    /** @param  list<int>  $seams  see {@see PacketSum::ofAll()} */
    private function packets(Plan $plan, OpenedSource $result, Track $track, array $seams): string
    {
        return PacketSum::ofAll($result->media, $track, $seams, fn (int $done) => $this->progress->reached(Phase::Verifying, min($done, $plan->samples), $plan->samples));
    }

    /** @return callable(): void */
    private function sign(Plan $plan): callable
    {
        return fn () => $this->progress->reached(Phase::Verifying, $plan->samples, $plan->samples);
    }

    /** A second or two at the begin and at the end. */
    private function decodeEnds(OpenedSource $result, Track $track, Plan $plan): void
    {
        $segment = $track->timeline->segments[0] ?? null;
        $rate = $track->sound->rate ?? 0;
        if ($segment === null || $segment->from === null || $rate === 0) {
            return;
        }
        $stretch = min($segment->length, self::SECONDS_AT_ENDS * $rate);
        $feed = new TrackDecoder($result->media, $track);
        foreach ([$segment->from, $segment->from + $segment->length - $stretch] as $from) {
            try {
                foreach ($feed->blocks([Segment::media($from, $stretch)]) as $block) {
                    $this->progress->reached(Phase::Verifying, $block->frames, $stretch);
                }
            } catch (PacketUndecodable $damage) {
                // The packets are those of the source: so is the damage.
                $this->notes[] = 'The source itself is damaged, and so is this copy of it. '.$damage->getMessage();
            }
        }
    }

    /** @param  ?string  $expected  XXH128 of the samples that went in, where they must come out again */
    private function decode(Plan $plan, OpenedSource $result, Track $track, ?Level $before, ?string $expected): Level
    {
        $meter = new LevelMeter;
        $samples = hash_init('xxh128');
        $done = 0;
        foreach ((new TrackDecoder($result->media, $track))->blocks($track->timeline->segments) as $block) {
            $meter->measure($block);
            if ($expected !== null) {
                hash_update($samples, $block->bytes());
            }
            $done += $block->frames;
            $this->progress->reached(Phase::Verifying, $done, $plan->samples);
        }

        return self::judge($plan, $done, hash_final($samples), $meter->level(), $before, $expected);
    }

    /** Whether decoding the result would do what was done already: the same packets, in the same form, without the same samples before. */
    private static function isTheSame(DecodeDigest $heard, Track $track, Written $written): bool
    {
        $segments = $track->timeline->segments;
        $audio = $track->sound;

        return $heard->packets === $written->packets(fn () => null) && $audio !== null && Codecs::setUp($audio) === Codecs::setUp($heard->audio) && $audio->layout->name() === $heard->audio->layout->name()
            && count($segments) === 1 && $segments[0]->from === $heard->delay && $segments[0]->length === $heard->frames;
    }

    private static function judge(Plan $plan, int $done, string $samples, Level $after, ?Level $before, ?string $expected): Level
    {
        $from = $before?->rmsDecibels();
        $to = $after->rmsDecibels() ?? -200.0;
        if ($done !== $plan->samples) {
            throw VerificationFailed::because($plan->path(), sprintf('it decodes to %s samples', number_format($done)));
        }
        if ($expected !== null && $samples !== $expected) {
            throw VerificationFailed::because($plan->path(), 'it does not decode to the samples that went in');
        }
        if ($expected !== null && $before !== null) {
            return $before;
        }
        // What is far over full scale is limited by every encoder; the receipt says so.
        $limited = $before !== null && $before->peak > self::FAR_OVER;
        if ($from !== null && $from > self::FLOOR && (! $limited && $to < $from - self::MOST_LOST || $to > $from + self::MOST_WON)) {
            throw VerificationFailed::because($plan->path(), sprintf('its level is %.1f dB where %.1f dB went in', $to, $from));
        }

        return $after;
    }

    /** @return list<string> */
    public static function notes(?Level $level): array
    {
        return $level !== null && $level->peak > 1.0
            ? [sprintf('The sound reaches %.1f dB over full scale; what is above was limited. Ask for a lower level if that can be heard.', (float) $level->peakDecibels())]
            : [];
    }
}
