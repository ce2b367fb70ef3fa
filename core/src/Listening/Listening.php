<?php

declare(strict_types=1);

namespace Octavox\Core\Listening;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Container\Track;
use Octavox\Core\Make\NoProgress;
use Octavox\Core\Make\Phase;
use Octavox\Core\Make\Progress;
use Octavox\Core\Make\SoundFeed;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\Apart;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LoudnessMeter;
use Octavox\Core\Sound\TruePeakMeter;

/** Listens to sound once from begin to end: levels, loudness, true peak, clipping, stereo image, ribbons. */
final class Listening
{
    private readonly LoudnessMeter $loudness;

    private readonly TruePeakMeter $truePeak;

    private readonly ChannelMeter $channels;

    private readonly ?PairMeter $pair;

    private readonly ?RibbonWriter $ribbon;

    private readonly Apart $apart;

    private int $samples = 0;

    /**
     * @param  ?ByteSink  $ribbon  where the ribbons go, null where none are wanted
     * @param  int  $expected  samples that there will be, for the ribbons
     */
    public function __construct(private readonly int $rate, Layout $layout, ?ByteSink $ribbon = null, int $expected = 0)
    {
        $this->loudness = new LoudnessMeter($rate, $layout);
        $this->truePeak = new TruePeakMeter;
        $this->channels = new ChannelMeter;
        $this->pair = $layout->count() === 2 ? new PairMeter($rate) : null;
        $this->ribbon = $ribbon === null ? null : new RibbonWriter($ribbon, $rate, $layout->count(), $expected);
        $this->apart = new Apart($layout->count(), array_values(array_filter([$this->ribbon, $this->loudness, $this->truePeak, $this->channels, $this->pair])));
    }

    /**
     * To a whole track as it would be made: from where the picture starts.
     *
     * @throws CodecNotDecodable
     */
    public static function to(OpenedSource $source, Track $track, ?ByteSink $ribbon = null, Progress $progress = new NoProgress): Measured
    {
        $form = $track->sound;
        if ($form === null || ! Codecs::canDecode($form)) {
            throw CodecNotDecodable::named($form?->label() ?? 'of no known form');
        }
        $segments = $track->timeline->from((int) round(($source->picture()->picture->starts ?? 0.0) * $form->rate));
        $expected = array_sum(array_map(fn ($segment): int => $segment->length, $segments));
        $listening = new self($form->rate, $form->layout, $ribbon, $expected);
        foreach ((new SoundFeed($source->media, $track))->blocks($segments) as $block) {
            $listening->take($block);
            $progress->reached(Phase::Measuring, $listening->samples, $expected);
        }

        return $listening->finish();
    }

    public function take(Block $block): void
    {
        $this->apart->take($block);
        $this->samples += $block->frames;
    }

    public function finish(): Measured
    {
        $this->apart->finish();
        $this->ribbon?->finish();

        return new Measured($this->channels->levels(), $this->truePeak->peaks(), $this->loudness->loudness(), $this->channels->clips(), $this->channels->places(), $this->pair?->image(), $this->samples, $this->rate, $this->loudness->alone());
    }
}
