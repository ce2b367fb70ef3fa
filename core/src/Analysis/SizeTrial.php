<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\Pcm\Rounding;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\PresentationStart;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;

/** How far sound can be compressed: a few stretches of it are, without loss and by Vorbis, whose rate follows the sound the most. */
final class SizeTrial
{
    /** Stretches, spread over the track. */
    private const STRETCHES = 5;

    private const SECONDS = 1.0;

    private const MOST_CHANNELS = 8;

    private const BITS = 16;

    /** Kbit/s a channel at which Vorbis is tried. */
    private const VORBIS_KBPS_EACH = [32, 64, 128];

    /** To so many digits results are kept, so that everybody predicts the same. */
    private const DIGITS = 3;

    /**
     * Null where that cannot be tried.
     *
     * @param  int  $samples  of the whole track
     * @param  bool  $withVorbis  whether Vorbis is tried as well, which takes longer than all the rest
     */
    public static function run(OpenedSource $source, Track $track, int $samples, bool $withVorbis = true): ?TriedSizes
    {
        $audio = $track->sound;
        if ($audio === null || $samples === 0 || $audio->channels() > self::MOST_CHANNELS) {
            return null;
        }
        try {
            $stretches = self::stretches($source, $track, $audio, $samples);

            return new TriedSizes(self::lossless($stretches, $audio), $withVorbis ? self::vorbis($stretches, $audio) : []);
        } catch (Failure) {
            return null;
        }
    }

    /**
     * @param  list<list<Block>>  $stretches
     * @return float  bits of a sample
     *
     * @throws Failure
     */
    private static function lossless(array $stretches, AudioFormat $audio): float
    {
        $rounded = [];
        foreach ($stretches as $blocks) {
            $rounding = new Rounding(self::BITS, $audio->rate, $audio->layout);
            $rounded[] = self::kept((function () use ($rounding, $blocks): iterable {
                foreach ($blocks as $block) {
                    yield from $rounding->take($block);
                }
            })());
        }
        $flac = new AudioFormat(Codec::Flac, $audio->rate, $audio->layout, null, '', 0, '', self::BITS);
        $bytes = self::bytes($rounded, fn (int $frames): Encoder => Codecs::encoder($flac, RateControl::none(), $frames));

        return round(8 * $bytes / $audio->channels(), self::DIGITS);
    }

    /**
     * @param  list<list<Block>>  $stretches
     * @return array<int, float> empty where it does not take such sound
     */
    private static function vorbis(array $stretches, AudioFormat $source): array
    {
        $format = Outputs::named('vorbis') ?? throw new \LogicException('Vorbis is a format.');
        $shares = [];
        try {
            $audio = $format->audio($source, $source->rate, $source->layout, null);
            foreach (self::VORBIS_KBPS_EACH as $each) {
                $control = $format->rateControl(RateControl::near($each * $audio->channels()), $audio);
                $bytes = self::bytes($stretches, fn (int $frames): Encoder => Codecs::encoder($audio, $control, $frames));
                $shares[$control->kbps] = round(8 * $bytes * $audio->rate / 1000 / $control->kbps, self::DIGITS);
            }
        } catch (Failure) {
            return [];
        }

        return $shares;
    }

    /**
     * Blocks are good until the next comes; a few seconds of them take a few megabytes.
     *
     * @param  iterable<Block>  $blocks
     * @return list<Block>
     *
     * @throws BlockTooLarge
     */
    private static function kept(iterable $blocks): array
    {
        $kept = [];
        foreach ($blocks as $block) {
            $kept[] = new Block(FloatBuffer::fromBytes($block->bytes()), $block->frames, $block->channels);
        }

        return $kept;
    }

    /**
     * @return list<list<Block>>
     *
     * @throws Failure
     */
    private static function stretches(OpenedSource $source, Track $track, AudioFormat $audio, int $samples): array
    {
        // What is as long as all stretches together is tried as a whole.
        $count = $samples > self::STRETCHES * self::SECONDS * $audio->rate ? self::STRETCHES : 1;
        $length = $count === 1 ? $samples : (int) (self::SECONDS * $audio->rate);
        $timeline = $track->timeline->from(PresentationStart::find($source->tracks, $audio->rate));
        $stretches = [];
        for ($stretch = 0; $stretch < $count; $stretch++) {
            $from = intdiv(($samples - $length) * (2 * $stretch + 1), 2 * $count);
            $stretches[] = self::kept((new TrackDecoder($source->media, $track))
                ->blocks(Segment::between($timeline, $from, $from + $length)));
        }

        return $stretches;
    }

    /**
     * @param  list<list<Block>>  $stretches
     * @param  callable(int): Encoder  $encoder  told how many samples come
     * @return float  bytes that a sample of all channels took
     *
     * @throws Failure
     */
    private static function bytes(array $stretches, callable $encoder): float
    {
        $bytes = $samples = 0;
        foreach ($stretches as $blocks) {
            $frames = array_sum(array_map(fn (Block $block): int => $block->frames, $blocks));
            $made = $encoder($frames);
            $packets = function () use ($made, $blocks): iterable {
                foreach ($blocks as $block) {
                    yield from $made->encode($block);
                }
                yield from $made->finish();
            };
            foreach ($packets() as $packet) {
                $bytes += strlen($packet->data);
            }
            $samples += $frames;
        }

        return $bytes / max(1, $samples);
    }
}
