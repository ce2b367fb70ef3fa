<?php

declare(strict_types=1);

namespace Octavox\Core\Make\Pipeline;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Pcm\Rounding;
use Octavox\Core\Failure;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockSplitter;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Deemphasis;
use Octavox\Core\Sound\Dither;
use Octavox\Core\Sound\Fade;
use Octavox\Core\Sound\Gain;
use Octavox\Core\Sound\LevelMeter;
use Octavox\Core\Sound\Mixer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\NoStandardMix;
use Octavox\Core\Sound\RateChange;
use Octavox\Core\Sound\Stage;
use Octavox\Core\Sound\Stages;

/** What decoded sound passes on its way to the encoder: pre-emphasis, channels, fades, level, rate, dither, rounding, in this order. */
final readonly class Filters
{
    /** @param  float  $gain  factor that reaches the level that is asked for */
    public function __construct(private SoundInput $input, private float $gain = 1.0) {}

    /**
     * The sound as the encoder takes it.
     *
     * @param  int  $begins  the sample from which on it is wanted, see {@see self::isDivisible()}
     * @param  ?LevelMeter  $incoming  told of the sound as it comes in, before anything is done to it
     * @param  int  $skips  samples that the meter is not told of at the start
     * @return iterable<Block>
     *
     * @throws Failure
     */
    public function blocks(int $begins = 0, ?LevelMeter $incoming = null, int $skips = 0): iterable
    {
        $blocks = $this->input->blocks($begins);

        return Stages::run($incoming === null ? $blocks : self::measured($blocks, $incoming, $skips), $this->stages($begins));
    }

    /**
     * The sound as it is before its level is set: what a target is measured on.
     *
     * @return iterable<Block>
     *
     * @throws Failure
     */
    public function unlevelled(): iterable
    {
        return Stages::run($this->input->blocks(), $this->shaping());
    }

    /**
     * Whether channels, fades or a gain make another level of it.
     *
     * @throws BlockTooLarge
     * @throws NoStandardMix
     */
    public function changeLevel(): bool
    {
        return $this->gain !== 1.0 || count($this->input->tracks) > 1 || $this->shaping() !== [];
    }

    /** Whether sound from the midst can be filtered without what is before it: a change of rate and fades know where they are. */
    public function isDivisible(): bool
    {
        $shape = $this->input->plan->shape;

        return $this->input->from->rate === $this->input->plan->audio->rate && $shape->joined === [] && $shape->deemphasised === []
            && $shape->fadeIn === 0
            && $shape->fadeOut === 0;
    }

    /**
     * @return list<Stage>
     *
     * @throws Failure
     */
    private function stages(int $begins): array
    {
        $from = $this->input->from;
        $audio = $this->input->plan->audio;
        $stages = $this->shaping();
        if ($this->gain !== 1.0) {
            $stages[] = new Gain($this->gain);
        }
        if ($from->rate !== $audio->rate) {
            $stages[] = new RateChange($from->rate, $audio->rate, $audio->channels(), $audio->bits() > 16);
        }
        if ($this->input->plan->dither) {
            $stages[] = new Dither($audio->bits(), $begins * $audio->channels());
        }
        // Whole numbers of the source that nothing has touched are rounded already.
        $whole = CodecModules::of($from->codec)->wholeBits($from);
        $isWhole = $whole > 0 && $whole <= $audio->bitDepth;
        if ($audio->bitDepth > 0 && ! ($stages === [] && $isWhole)) {
            $stages[] = new Rounding($audio->bitDepth, $audio->rate, $audio->layout);
        }

        return $stages;
    }

    /**
     * @return list<Stage> channels and fades
     *
     * @throws BlockTooLarge
     * @throws NoStandardMix
     */
    private function shaping(): array
    {
        $shape = $this->input->plan->shape;
        $stages = $shape->deemphasised === [] ? []
            : [new Deemphasis($shape->deemphasised, $this->input->from->rate, $this->input->from->channels())];
        $mix = $shape->mix($this->input->from->layout, $this->input->plan->audio->layout);
        if (! $mix->isStraight()) {
            $stages[] = new Mixer($mix);
        }
        if ($shape->fadeIn > 0 || $shape->fadeOut > 0) {
            $stages[] = new Fade($shape->fadeIn, $shape->fadeOut, $this->input->length());
        }

        return $stages;
    }

    /**
     * @param  iterable<Block>  $blocks
     * @return iterable<Block>
     *
     * @throws LibraryMissing
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
}
