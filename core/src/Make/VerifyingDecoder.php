<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Failure;
use Octavox\Core\Json\Fields;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Parallel\ForkedTask;
use Octavox\Core\Sound\LevelMeter;

/**
 * Decodes what is being encoded while it is being encoded, in a process of its own, so that one long result uses a second
 * processor. Whatever befalls that process costs nothing but time: the result is then decoded after it was written.
 */
final class VerifyingDecoder
{
    /** Shorter results are decoded faster than a process begins. */
    private const SECONDS_WORTH_IT = 45;

    /** Bytes that are collected before they are sent. */
    private const TOGETHER = 65_536;

    private string $waiting = '';

    private bool $lost = false;

    private function __construct(private readonly int $delay, private readonly ForkedTask $task) {}

    /**
     * Null where it is not worth it, or where no process can be started.
     *
     * @param  int  $delay  decoded samples that are not presented before the first
     * @param  int  $samples  that are presented
     */
    public static function start(AudioFormat $audio, int $delay, int $samples): ?self
    {
        $task = $samples < self::SECONDS_WORTH_IT * $audio->rate ? null
            : ForkedTask::begin(fn ($input): array => self::listen($input, $audio, $delay, $samples)->toArray());

        return $task === null ? null : new self($delay, $task);
    }

    public function take(Packet $packet): void
    {
        if ($packet->config !== null) {
            $this->lost = true;
        }
        if (! $this->lost) {
            $this->waiting .= PipedPackets::pack($packet);
            if (strlen($this->waiting) > self::TOGETHER) {
                $this->send();
            }
        }
    }

    /**
     * What was decoded, once all packets were taken; null where the second process was lost.
     *
     * @param  AudioFormat  $audio  as it stands in the result, with what only the end tells
     * @param  callable(): void  $sign  told now and then that it is still waited for
     */
    public function finish(AudioFormat $audio, callable $sign): ?DecodeDigest
    {
        $this->send();
        $said = $this->lost ? null : $this->task->result($sign);
        try {
            return $said === null ? null : DecodeDigest::fromFields(new Fields($said), $audio, $this->delay);
        } catch (\UnexpectedValueException) {
            return null;
        }
    }

    /**
     * The other end: reads the packets, and tells what they decode to.
     *
     * @param  resource  $input
     *
     * @throws Failure
     */
    private static function listen($input, AudioFormat $audio, int $delay, int $samples): DecodeDigest
    {
        $segment = Segment::media($delay, $samples);
        $track = Track::sound(1, $audio, Timeline::edited(0, [$segment], $delay + $samples), 0);
        $packets = new PipedPackets($input, $track);
        $meter = new LevelMeter;
        $hash = hash_init('xxh128');
        $frames = 0;
        foreach ((new TrackDecoder($packets, $track))->blocks([$segment]) as $block) {
            // Equal samples have an equal level.
            $audio->bitDepth > 0 ? hash_update($hash, $block->bytes()) : $meter->measure($block);
            $frames += $block->frames;
        }

        return new DecodeDigest($packets->hash(), $frames, $meter->level(), hash_final($hash), $audio, $delay);
    }

    private function send(): void
    {
        $this->lost = $this->lost || ! $this->task->tell($this->waiting);
        $this->waiting = '';
    }
}
