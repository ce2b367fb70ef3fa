<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Codec\Pcm\Rounding;
use Octavox\Core\Codec\SampleKind;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\Track;
use Octavox\Core\Plan\PlannedSound;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Dither;
use Octavox\Core\Sound\Mix;
use Octavox\Core\Sound\Mixer;
use Octavox\Core\Sound\RateChange;
use Octavox\Core\Sound\Stage;

/** Decoded sound on its way to the encoder: channels, rate, width, in this order. */
final class Shaping
{
    /**
     * @param  int  $moment  samples of the source's time at which the result begins
     * @param  ?int  $lasts  samples of the source's time from then on, null as long as the track presents
     * @return iterable<Block>
     */
    public static function of(OpenedSource $source, Track $track, SoundForm $form, PlannedSound $sound, int $moment, ?int $lasts = null): iterable
    {
        $stages = [];
        $mix = Mix::between($form->layout, $sound->form->layout);
        if (! $mix->isStraight()) {
            $stages[] = new Mixer($mix);
        }
        if ($form->rate !== $sound->form->rate) {
            $stages[] = new RateChange($form->rate, $sound->form->rate, $sound->form->channels(), $sound->form->bits() > 16);
        }
        if ($sound->dither) {
            $stages[] = new Dither($sound->form->bits());
        }
        // Whole numbers of the source that nothing has touched are rounded already.
        $exact = $stages === [] && $form->codec->isLossless() && ! in_array($form->pcm?->kind, [SampleKind::Float, SampleKind::ALaw, SampleKind::MuLaw], true) && $form->bits() <= $sound->form->width;
        if ($sound->form->width > 0 && ! $exact) {
            $stages[] = new Rounding($sound->form->width, $sound->form->rate, $sound->form->layout);
        }
        $blocks = (new SoundFeed($source->media, $track))->blocks($track->timeline->from($moment, $lasts));
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
