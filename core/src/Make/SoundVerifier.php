<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\PacketLengths;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\SoundPlan;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\Level;
use Octavox\Core\Sound\LevelMeter;

/**
 * Compares one sound of a result, read back, with what was planned and written: length, rate and layout, every packet's bytes; what was
 * encoded is decoded and compared with the sound that went in, of what was copied both ends are decoded.
 */
final class SoundVerifier
{
    /** A lossy encoder may take away the highest sounds, but not this much, in dB; below the floor it may take everything. */
    private const MOST_LOST = 6.0;

    /** Noise loses more where there are so few bits for a sample that only its lowest quarter is kept. */
    private const FEW_BITS = 1.2;

    private const MOST_LOST_OF_FEW = 12.0;

    private const MOST_WON = 3.0;

    private const FLOOR = -60.0;

    /** Of full scale. */
    private const FAR_OVER = 4.0;

    /** A lossy encoder spreads so short a sound over its frames: what is left of it within tells nothing of its level. */
    private const SECONDS_TOO_SHORT = 0.05;

    private const SECONDS_AT_ENDS = 2;

    /** Seconds by which the length that a source announces may differ from what its packets hold. */
    private const SECONDS_ANNOUNCED_OTHERWISE = 0.25;

    /** @var list<string> */
    private array $notes = [];

    /**
     * @param  string  $path  of the result, for what is told of it
     * @param  bool  $isLayoutTold  whether its container says which channel is which
     */
    public function __construct(private readonly string $path, private readonly SoundPlan $plan, private readonly Progress $progress,
        private readonly bool $isLayoutTold = true) {}

    /** @return list<string> what was noticed that does not make the result wrong */
    public function notes(): array
    {
        return array_values(array_unique($this->notes));
    }

    /** @return list<string> what is told of sound that reaches beyond full scale */
    public static function overload(?Level $level): array
    {
        return $level !== null && $level->peak > 1.0
            ? [sprintf('The sound reaches %.1f dB over full scale; what is above was limited. Ask for a lower level if that can be heard.',
                (float) $level->peakDecibels())]
            : [];
    }

    /**
     * @param  string  $what  the sound, as it is called where it differs
     *
     * @throws VerificationFailed where codec, rate, channels, their places or length are not those of the plan
     */
    public function requireAlike(Track $track, Written $written, string $what): void
    {
        $audio = $track->sound;
        $wanted = $this->plan->audio;
        if ($audio === null || $audio->rate !== $wanted->rate || $audio->channels() !== $wanted->channels()
            || $audio->codec !== $wanted->codec) {
            throw VerificationFailed::because($this->path, sprintf('the format of %s differs', $what));
        }
        if ($this->isLayoutTold && ! $wanted->layout->reads($audio->layout)) {
            throw VerificationFailed::because($this->path, sprintf('%s reads as the channels %s instead of %s', $what,
                $audio->layout->letters(), $wanted->layout->letters()));
        }
        $samples = $track->timeline->samples();
        if (! $this->isAsLong($samples, $audio, $written->copied)) {
            throw VerificationFailed::because($this->path,
                sprintf('%s samples instead of %s in %s', number_format($samples), number_format($this->plan->samples), $what));
        }
    }

    /**
     * @param  ?Summing  $sum  of the whole result, null where something else is in it too
     * @return ?Level of the result; null where it did not have to be decoded
     *
     * @throws Failure
     */
    public function compare(OpenedSource $result, Track $track, Written $written, ?Summing $sum): ?Level
    {
        $encoded = $written->encoded;
        $agree = null;
        $packets = function () use (&$agree, $result, $track, $written): bool {
            return $agree ??= $this->packets($result, $track, $written->seams) === $written->packets($this->sign(...));
        };
        if ($written->checksum === null || $sum === null ? ! $packets() : $sum->result($this->sign(...)) !== $written->checksum) {
            throw VerificationFailed::because($this->path, 'the bytes on the drive are not those that were written');
        }
        // Equal bytes of PCM are equal samples; decoding them again would tell nothing new about the level.
        if ($this->plan->audio->codec === Codec::Pcm && $encoded !== null) {
            return new Level(min(1.0, $encoded->level->peak), $encoded->level->rms);
        }
        $canDecode = $track->sound !== null && Codecs::canDecode($track->sound);
        // Copied packets are those of the source, byte for byte; what nobody here decodes can only be compared so.
        if ($this->plan->isKept() || ! $canDecode) {
            if (! $packets()) {
                throw VerificationFailed::because($this->path, 'its packets are not those that were written');
            }
            // That they are understood shows at both ends.
            if ($canDecode) {
                $this->decodeEnds($result, $track);
            }

            return null;
        }
        $digest = $encoded?->digest;
        if ($encoded !== null && $digest !== null && $this->isTheSame($digest, $track, $written) && $packets()) {
            return $this->judge($digest->frames, $digest->samples, $digest->level, $encoded);
        }

        return $this->decode($result, $track, $encoded);
    }

    /** What a source's times announce and what its packets hold can differ a little: a copy has what they hold. */
    private function isAsLong(int $samples, AudioFormat $audio, ?Copied $copied): bool
    {
        $off = abs($samples - $this->plan->samples);
        $isAsCopied = $copied !== null && abs($samples - $copied->samples) <= $copied->gaps * (intdiv($audio->rate, 1000) + 1)
            && $off <= $audio->rate * self::SECONDS_ANNOUNCED_OTHERWISE;

        return $isAsCopied || $off <= PacketLengths::tolerance($audio);
    }

    /**
     * @param  list<int>  $seams  see {@see PacketSum::ofAll()}
     *
     * @throws BytesMissing
     * @throws Failure
     */
    private function packets(OpenedSource $result, Track $track, array $seams): string
    {
        $samples = $this->plan->samples;

        return PacketSum::ofAll($result->media, $track, $seams,
            fn (int $done) => $this->progress->reached(Phase::Verifying, min($done, $samples), $samples));
    }

    private function sign(): void
    {
        $this->progress->reached(Phase::Verifying, $this->plan->samples, $this->plan->samples);
    }

    /**
     * A second or two at the start and at the end.
     *
     * @throws Failure
     */
    private function decodeEnds(OpenedSource $result, Track $track): void
    {
        $segment = $track->timeline->segments[0] ?? null;
        $rate = $track->sound->rate ?? 0;
        if ($segment === null || $segment->from === null || $rate === 0) {
            return;
        }
        $stretch = min($segment->length, self::SECONDS_AT_ENDS * $rate);
        $decoder = new TrackDecoder($result->media, $track);
        foreach ([$segment->from, $segment->from + $segment->length - $stretch] as $from) {
            try {
                foreach ($decoder->blocks([Segment::media($from, $stretch)]) as $block) {
                    $this->progress->reached(Phase::Verifying, $block->frames, $stretch);
                }
            } catch (PacketUndecodable $damage) {
                // The packets are those of the source: so is the damage.
                $this->notes[] = 'The source itself is damaged, and so is this copy of it. '.$damage->getMessage();
            }
        }
    }

    /**
     * @throws Failure
     */
    private function decode(OpenedSource $result, Track $track, ?Encoded $encoded): Level
    {
        $meter = new LevelMeter;
        $samples = hash_init('xxh128');
        $done = 0;
        foreach ((new TrackDecoder($result->media, $track))->blocks($track->timeline->segments) as $block) {
            $meter->measure($block);
            if ($encoded?->samples !== null) {
                hash_update($samples, $block->bytes());
            }
            $done += $block->frames;
            $this->progress->reached(Phase::Verifying, $done, $this->plan->samples);
        }

        return $this->judge($done, hash_final($samples), $meter->level(), $encoded);
    }

    /**
     * Whether decoding the result would do what was done already: the same packets, in the same format, without the same samples before.
     */
    private function isTheSame(DecodeDigest $digest, Track $track, Written $written): bool
    {
        $segments = $track->timeline->segments;
        $audio = $track->sound;

        return $digest->packets === $written->packets(fn () => null) && $audio !== null
            && Codecs::setUp($audio) === Codecs::setUp($digest->audio)
            && $audio->layout->name() === $digest->audio->layout->name()
            && count($segments) === 1 && $segments[0]->from === $digest->delay && $segments[0]->length === $digest->frames;
    }

    /** dB */
    private function mostLost(): float
    {
        $kbps = $this->plan->rateControl->kbps;
        $bits = 1000 * $kbps / max(1, $this->plan->audio->rate * $this->plan->audio->channels());

        return $kbps > 0 && $bits < self::FEW_BITS ? self::MOST_LOST_OF_FEW : self::MOST_LOST;
    }

    /**
     * @param  int  $done  samples that came out
     * @param  string  $samples  XXH128 of them
     *
     * @throws VerificationFailed
     */
    private function judge(int $done, string $samples, Level $after, ?Encoded $encoded): Level
    {
        if ($done !== $this->plan->samples) {
            throw VerificationFailed::because($this->path, sprintf('it decodes to %s samples', number_format($done)));
        }
        if ($encoded === null) {
            return $after;
        }
        if ($encoded->samples !== null) {
            return $samples === $encoded->samples ? $encoded->level
                : throw VerificationFailed::because($this->path, 'it does not decode to the samples that went in');
        }
        // A format that has whole frames only is filled up with silence, over which the level is spread.
        $sound = min($done, $encoded->frames ?? $done);
        if ($sound < $this->plan->audio->rate * self::SECONDS_TOO_SHORT) {
            return $after;
        }
        $from = $encoded->level->rmsDecibels();
        $from = $from === null ? null : $from + 10 * log10($sound / max(1, $done));
        $to = $after->rmsDecibels() ?? -200.0;
        // What is far over full scale is limited by every encoder; the receipt says so.
        $isLimited = $encoded->level->peak > self::FAR_OVER;
        if ($from !== null && $from > self::FLOOR && (! $isLimited && $to < $from - $this->mostLost() || $to > $from + self::MOST_WON)) {
            throw VerificationFailed::because($this->path, sprintf('its level is %.1f dB where %.1f dB went in', $to, $from));
        }

        return $after;
    }
}
