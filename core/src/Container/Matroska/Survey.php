<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Codec\PacketLengths;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\TrackKind;

/** Gathers first and last times, lengths and bytes of each track while the heads of blocks are walked. */
final class Survey
{
    /** Bytes of a frame that tell its length. */
    private const HEAD = 16;

    /** @var array<int, TrackSurvey> by the track's own number */
    private array $tracks = [];

    /** @var array<int, TrackEntry> */
    private array $entries = [];

    public function __construct(private readonly bool $whole) {}

    public function expect(TrackEntry $entry): void
    {
        $this->entries[$entry->number] = $entry;
        $this->track($entry->number)->length = $entry->kind === TrackKind::Sound && $entry->sound !== null
            ? PacketLengths::for($entry->sound) : null;
    }

    public function track(int $track): TrackSurvey
    {
        return $this->tracks[$track] ??= new TrackSurvey;
    }

    /** What lies between is not looked at. */
    public function jump(): void
    {
        foreach ($this->tracks as $track) {
            $track->previous = -1;
        }
    }

    /** @param  \Closure(int): string  $read  gives the first bytes of the frame */
    public function take(Frame $frame, \Closure $read): void
    {
        $facts = $this->tracks[$frame->track] ?? null;
        $entry = $this->entries[$frame->track] ?? null;
        if ($facts === null || $entry === null) {
            return;
        }
        $facts->first = $facts->first === null ? $frame->time : min($facts->first, $frame->time);
        // The first packet of Vorbis gives no sound (Vorbis I specification, 4.3.8): samples are counted from the second on, wherever a
        // writer puts the first.
        if ($facts->counted === null || $facts->frames === 1 && $entry->sound?->codec === Codec::Vorbis) {
            $facts->counted = $frame->time;
        }
        $facts->counted = min($facts->counted, $frame->time);
        if ($facts->firstAt === null) {
            [$facts->firstAt, $facts->firstBytes] = [$frame->at, $frame->bytes];
        }
        if ($facts->previous >= 0 && $frame->time > $facts->previous) {
            $facts->seenTicks += $frame->time - $facts->previous;
        }
        $facts->previous = max($facts->previous, $frame->time);
        $facts->frames++;
        $facts->bytes += $frame->bytes;
        $samples = $facts->length === null ? 0 : $this->samples($entry, $facts, $frame, $read);
        $facts->samples = $this->whole ? (int) $facts->samples + $samples : null;
        $facts->usualSamples = $facts->usualSamples === 0 ? $samples : $facts->usualSamples;
        if ($facts->last === null || $frame->time >= $facts->last) {
            $facts->lastTicks = $frame->duration > 0 ? $frame->duration : ($facts->frames === 1 ? 0 : $frame->time - (int) $facts->last);
            $facts->lastSamples = $frame->time === $facts->last ? $facts->lastSamples + $samples : $samples;
            $facts->last = $frame->time;
            $facts->lastAt = $frame->at;
            $facts->discard = $frame->discard;
        }
    }

    /** The latest time of all. */
    public function end(): int
    {
        return max(0, ...array_map(fn (TrackSurvey $track): int => (int) $track->last, array_values($this->tracks)));
    }

    /** @param  \Closure(int): string  $read */
    private function samples(TrackEntry $entry, TrackSurvey $facts, Frame $frame, \Closure $read): int
    {
        $audio = $entry->sound;
        if ($audio === null || $facts->length === null) {
            return 0;
        }
        if ($audio->pcm !== null && ! $entry->deflated) {
            return intdiv(strlen($entry->stripped) + $frame->bytes, max(1, $audio->frameBytes()));
        }
        if ($audio->frameLength > 0
            && ! in_array($audio->codec, [Codec::Opus, Codec::Vorbis, Codec::Flac, Codec::Mp1, Codec::Mp2, Codec::Mp3], true)) {
            return $audio->frameLength;
        }

        return $facts->length->samples($entry->deflated ? $entry->whole($read($frame->bytes)) : $entry->whole($read(self::HEAD)));
    }
}
