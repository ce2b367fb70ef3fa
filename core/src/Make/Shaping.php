<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Codec\Pcm\Rounding;
use Octavox\Core\Decode\JoinedDecoder;
use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\JoinedTracks;
use Octavox\Core\Plan\PlannedSound;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockSplitter;
use Octavox\Core\Sound\Dither;
use Octavox\Core\Sound\Fade;
use Octavox\Core\Sound\Gain;
use Octavox\Core\Sound\LevelMeter;
use Octavox\Core\Sound\Mixer;
use Octavox\Core\Sound\RateChange;
use Octavox\Core\Sound\Stage;

/** Decoded sound on its way to the encoder: pieces, channels, fades, level, rate, width, in this order. */
final class Shaping
{
    /**
     * @param  int  $moment  samples of the source's time at which the result begins
     * @param  ?int  $lasts  samples of the source's time from then on, null as long as the track presents
     * @param  float  $gain  factor that reaches the level that is wished
     * @param  int  $begins  the sample from which on it is wanted, see {@see self::isDivisible()}
     * @param  ?LevelMeter  $incoming  told of the sound as it comes in, before anything is done to it
     * @param  int  $skips  samples that it is not told of at the begin
     * @return iterable<Block>
     */
    public static function of(OpenedSource $source, Track $track, AudioFormat $audio, PlannedSound $sound, int $moment, ?int $lasts = null, float $gain = 1.0, int $begins = 0, ?LevelMeter $incoming = null, int $skips = 0): iterable
    {
        [$blocks, $audio, $length] = self::heard($source, $track, $audio, $sound, $moment, $lasts, $begins);
        if ($incoming !== null) {
            $blocks = self::measured($blocks, $incoming, $skips);
        }
        $stages = self::stages($audio, $sound, $length);
        if ($gain !== 1.0) {
            $stages[] = new Gain($gain);
        }
        if ($audio->rate !== $sound->audio->rate) {
            $stages[] = new RateChange($audio->rate, $sound->audio->rate, $sound->audio->channels(), $sound->audio->bits() > 16);
        }
        if ($sound->dither) {
            $stages[] = new Dither($sound->audio->bits(), $begins * $sound->audio->channels());
        }
        // Whole numbers of the source that nothing has touched are rounded already.
        $exact = $stages === [] && $audio->codec->isLossless() && ! in_array($audio->pcm?->kind, [SampleKind::Float, SampleKind::ALaw, SampleKind::MuLaw], true) && $audio->bits() <= $sound->audio->bitDepth;
        if ($sound->audio->bitDepth > 0 && ! $exact) {
            $stages[] = new Rounding($sound->audio->bitDepth, $sound->audio->rate, $sound->audio->layout);
        }

        return self::run($blocks, $stages);
    }

    /** Whether channels, fades or a gain make another level of it. */
    public static function changesLevel(AudioFormat $audio, PlannedSound $sound, float $gain): bool
    {
        return $gain !== 1.0 || $sound->shape->joined !== [] || self::stages($audio, $sound, 0) !== [];
    }

    /** Whether sound from the midst can be shaped without what is before it: a change of rate and fades know where they are. */
    public static function isDivisible(AudioFormat $audio, PlannedSound $sound): bool
    {
        return $audio->rate === $sound->audio->rate && $sound->shape->joined === [] && $sound->shape->fadeIn === 0 && $sound->shape->fadeOut === 0;
    }

    /**
     * The sound as it is before its level is set: what a target is measured on.
     *
     * @return iterable<Block>
     */
    public static function unlevelled(OpenedSource $source, Track $track, AudioFormat $audio, PlannedSound $sound, int $moment, ?int $lasts): iterable
    {
        [$blocks, $audio, $length] = self::heard($source, $track, $audio, $sound, $moment, $lasts);

        return self::run($blocks, self::stages($audio, $sound, $length));
    }

    /** @return array{iterable<Block>, AudioFormat, int} what comes in, in which form, and how many samples */
    private static function heard(OpenedSource $source, Track $track, AudioFormat $audio, PlannedSound $sound, int $moment, ?int $lasts, int $begins = 0): array
    {
        if ($sound->shape->joined === []) {
            $segments = $sound->shape->cut($track->timeline->from($moment, $lasts));
            $segments = Segment::between($segments, $begins, Segment::total($segments));

            return [(new TrackDecoder($source->media, $track, $source->damage))->blocks($segments), $audio, Segment::total($segments)];
        }
        $tracks = [$track, ...array_map(fn (int $number): Track => $source->track($number) ?? throw SourceChanged::track($source->media->source()->name()), $sound->shape->joined)];
        $segments = array_map($sound->shape->cut(...), JoinedTracks::segments($tracks, $moment, $lasts));
        $one = JoinedTracks::asOne($source->media->source()->name(), $tracks, $moment);

        return [(new JoinedDecoder($source, $tracks))->blocks($segments), $one->sound ?? $audio, Segment::total($segments[0] ?? [])];
    }

    /**
     * @param  iterable<Block>  $blocks
     * @return iterable<Block>
     */
    private static function measured(iterable $blocks, LevelMeter $meter, int $skips): iterable
    {
        $done = 0;
        foreach (BlockSplitter::at($blocks, [$skips]) as $block) {
            if ($done >= $skips) {
                $meter->measure($block);
            }
            $done += $block->frames;
            yield $block;
        }
    }

    /** @return list<Stage> channels and fades */
    private static function stages(AudioFormat $audio, PlannedSound $sound, int $length): array
    {
        $stages = [];
        $mix = $sound->shape->mix($audio->layout, $sound->audio->layout);
        if (! $mix->isStraight()) {
            $stages[] = new Mixer($mix);
        }
        if ($sound->shape->fadeIn > 0 || $sound->shape->fadeOut > 0) {
            $stages[] = new Fade($sound->shape->fadeIn, $sound->shape->fadeOut, $length);
        }

        return $stages;
    }

    /**
     * @param  iterable<Block>  $blocks
     * @param  list<Stage>  $stages
     * @return iterable<Block>
     */
    private static function run(iterable $blocks, array $stages): iterable
    {
        foreach ($stages as $stage) {
            $blocks = self::through($blocks, $stage);
        }

        return $blocks;
    }

    /**
     * @param  iterable<Block>  $blocks
     * @return iterable<Block>
     */
    private static function through(iterable $blocks, Stage $stage): iterable
    {
        foreach ($blocks as $block) {
            yield from $stage->take($block);
        }
        yield from $stage->finish();
    }
}
