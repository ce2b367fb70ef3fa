<?php

declare(strict_types=1);

namespace Octavox\Core\Decode;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\DamageLog;
use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Codec\PlausibleLength;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Mix;
use Octavox\Core\Sound\Mixer;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;
use Octavox\Core\Sound\NoStandardMix;

/**
 * The decoded sound of a track as it is presented: segment after segment, silence where there is none,
 * gaps in the packets' times kept open, exactly as many samples as the segments say.
 */
final class TrackDecoder
{
    private const SILENCE_FRAMES = 16384;

    /** Of full scale; some programs write whole numbers of 16 bits as floating point. */
    private const LOUDEST = 65_536.0;

    /** Shorter blocks are put together to so many frames: each costs as many calls as a long one. */
    private const TOGETHER = 8192;

    private readonly AudioFormat $audio;

    /** What a program of the owner decodes. */
    private readonly ?OutsideSound $outside;

    /** Samples that the track has at most, by what is there of it. */
    private readonly int $most;

    private ?FloatBuffer $silence = null;

    /** Samples of silence that were filled in. */
    private int $silent = 0;

    /** @param  ?DamageLog  $damage  told where silence stands for damaged packets */
    public function __construct(private readonly Demuxer $media, private readonly Track $track, private readonly ?DamageLog $damage = null)
    {
        $this->audio = $track->sound ?? throw new \LogicException('Only sound tracks are fed.');
        $this->most = PlausibleLength::most($track, $media->source()->size());
        $this->outside = $this->audio->isOutside ? new OutsideSound($media->source()->name(), $track, $this->audio) : null;
    }

    /**
     * @param  list<Segment>  $segments
     * @return \Generator<int, Block>
     *
     * @throws TooMuchSilence where they are longer than what is there of the track can be
     * @throws BlockTooLarge
     * @throws LibraryMissing
     * @throws OutsideDecoderFailed
     * @throws SoundMissing
     * @throws CodecNotDecodable
     * @throws NoStandardMix
     * @throws PacketUndecodable
     * @throws BytesMissing
     * @throws Failure
     */
    public function blocks(array $segments): \Generator
    {
        if (Segment::total($segments) > $this->most) {
            throw TooMuchSilence::seconds($this->media->source()->name(), Segment::total($segments) / max(1, $this->audio->rate));
        }
        yield from self::finite($this->together((function () use ($segments): iterable {
            foreach ($segments as $segment) {
                yield from $segment->from === null
                    ? $this->silent($segment->length)
                    : $this->media($segment->from, $segment->length);
            }
        })()));
    }

    /**
     * Samples that are no number become silence, those beyond all reason as loud as can be: no encoder and no filter bears them.
     *
     * @param  iterable<Block>  $blocks
     * @return \Generator<int, Block>
     *
     * @throws LibraryMissing
     * @throws BlockTooLarge
     */
    private static function finite(iterable $blocks): \Generator
    {
        foreach ($blocks as $block) {
            $energy = VectorMath::get()->energy($block->buffer, $block->first(), $block->samples());
            yield is_finite($energy) && $energy <= self::LOUDEST ** 2 * max(1, $block->samples()) ? $block : self::mended($block);
        }
    }

    /** @throws BlockTooLarge */
    private static function mended(Block $block): Block
    {
        $samples = array_map(fn (mixed $sample): float => is_float($sample) && is_finite($sample)
            ? max(-self::LOUDEST, min(self::LOUDEST, $sample)) : 0.0, unpack('f*', $block->bytes()) ?: []);

        return new Block(FloatBuffer::fromBytes(pack('f*', ...$samples)), $block->frames, $block->channels);
    }

    /**
     * @param  iterable<Block>  $blocks
     * @return iterable<Block>
     *
     * @throws BlockTooLarge
     */
    private function together(iterable $blocks): iterable
    {
        $channels = $this->audio->channels();
        $room = null;
        $held = 0;
        foreach ($blocks as $block) {
            if ($held === 0 && $block->frames >= self::TOGETHER) {
                yield $block;

                continue;
            }
            $room ??= new FloatBuffer(self::TOGETHER * $channels);
            for ($from = 0; $from < $block->frames; $from += $count) {
                $count = min($block->frames - $from, self::TOGETHER - $held);
                $room->copy($held * $channels, $block->buffer, $block->first() + $from * $channels, $count * $channels);
                $held += $count;
                if ($held === self::TOGETHER) {
                    yield new Block($room, $held, $channels);
                    $held = 0;
                }
            }
        }
        if ($room !== null && $held > 0) {
            yield new Block($room, $held, $channels);
        }
    }

    /**
     * @return iterable<Block>
     *
     * @throws Failure
     */
    private function media(int $from, int $length): iterable
    {
        $until = $from + $length;
        $at = $from;
        foreach ($this->outside?->placed($from, $until) ?? $this->placed($from, $until) as [$start, $block]) {
            if ($start - $at > intdiv($this->audio->rate, 50)) {
                // What is there begins later than it should.
                $late = min($start, $until) - $at;
                yield from $this->silent($late);
                $at += $late;
            }
            $skip = max(0, $at - $start);
            if ($skip >= $block->frames) {
                continue;
            }
            $count = min($block->frames - $skip, $until - $at);
            if ($count > 0) {
                yield $block->part($skip, $count);
                $at += $count;
            }
            if ($at >= $until) {
                $this->outside?->settle($until);

                return;
            }
        }
        $missing = $until - $at;
        // A decoder may end a packet or two early; more is sound that is not there.
        if ($this->outside === null && $missing > max(4608, 3 * $this->audio->frameLength) && ! $this->goesOn($until)) {
            throw SoundMissing::seconds($this->media->source()->name(), $missing / $this->audio->rate);
        }
        yield from $this->silent($missing);
    }

    /** Whether there is sound at or behind a sample: then what is missing before it is a gap, not the end. */
    private function goesOn(int $sample): bool
    {
        foreach ($this->media->packets($this->track, $sample, PHP_INT_MAX >> 2) as $packet) {
            if ($packet->start >= $sample) {
                return true;
            }
        }

        return false;
    }

    /**
     * @return iterable<array{int, Block}> blocks with the place of their first sample
     *
     * @throws Failure
     */
    private function placed(int $from, int $until): iterable
    {
        $decoder = $config = $mixer = null;
        $place = null;
        $expected = 0;
        // Times may be rounded or jitter a little; what is off by half a packet and 20 ms is a gap.
        $tolerance = max(intdiv($this->audio->frameLength, 2), intdiv($this->audio->rate, 50));
        $drift = max($tolerance, intdiv($this->audio->rate, 4));
        $stated = null;
        foreach ($this->media->packets($this->track, $from, $until) as $packet) {
            $place ??= $packet->start;
            if ($decoder !== null && $packet->config !== null && $packet->config !== $config) {
                // Another recording begins: what the decoder still holds belongs to the one before.
                while (($block = $decoder->finish()) !== null) {
                    yield [$place, $this->mixed($block, $mixer)];
                    $place += $block->frames;
                }
                $decoder = null;
            }
            if ($decoder === null) {
                $config = $packet->config;
                $audio = $config === null ? $this->audio : Codecs::withSetUp($this->audio, $config);
                $decoder = Codecs::decoder($audio);
                $mixer = $audio->layout->equals($this->audio->layout) ? null
                    : new Mixer(Mix::between($audio->layout, $this->audio->layout));
            }
            $expected = $expected === 0 ? $packet->start : $expected;
            $stated ??= $packet->start;
            $gap = $packet->start - $expected;
            // Clocks that run a little apart open no gap until it can be heard; a step from one packet to the next does.
            if ($gap > $tolerance && ($packet->start - $stated > $tolerance || $gap > $drift)) {
                while (($block = $decoder->finish()) !== null) {
                    yield [$place, $this->mixed($block, $mixer)];
                    $place += $block->frames;
                }
                foreach ($this->silent($gap) as $block) {
                    yield [$place, $block];
                    $place += $block->frames;
                }
                $expected += $gap;
            }
            $expected += $packet->length;
            $stated = $packet->start + $packet->length;
            $block = $decoder->decode($packet);
            if ($this->damage !== null && $decoder instanceof Mending) {
                foreach ($decoder->takeMended() as [$at, $length]) {
                    $this->damage->add($at, $length);
                }
            }
            if ($block !== null) {
                yield [$place, $this->mixed($block, $mixer)];
                $place += $block->frames;
            }
        }
        while ($decoder !== null && ($block = $decoder->finish()) !== null) {
            yield [$place ?? 0, $this->mixed($block, $mixer)];
            $place += $block->frames;
        }
    }

    /**
     * A block of a recording with other channels, brought into those of the track.
     *
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    private function mixed(Block $block, ?Mixer $mixer): Block
    {
        foreach ($mixer?->take($block) ?? [] as $mixed) {
            return $mixed;
        }

        return $block;
    }

    /**
     * @return iterable<Block>
     *
     * @throws BlockTooLarge
     * @throws TooMuchSilence
     */
    private function silent(int $frames): iterable
    {
        $channels = $this->audio->channels();
        $this->silent += $frames;
        if ($this->silent > $this->most) {
            throw TooMuchSilence::seconds($this->media->source()->name(), $this->silent / $this->audio->rate);
        }
        for ($left = $frames; $left > 0; $left -= $count) {
            $count = min(self::SILENCE_FRAMES, $left);
            $this->silence ??= new FloatBuffer(self::SILENCE_FRAMES * $channels);
            $this->silence->silence(0, $count * $channels);
            yield new Block($this->silence, $count, $channels);
        }
    }
}
