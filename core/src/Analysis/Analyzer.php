<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\NoProgress;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\PresentationStart;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Deinterleaver;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LoudnessMeter;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\TruePeakMeter;

/** Listens to sound once from start to end: levels, loudness, true peak, clipping, stereo image, waveform. */
final class Analyzer
{
    /** Tracks that are shorter are analysed faster than a second process begins. */
    private const SECONDS_WORTH_HALVING = 120;

    private readonly LoudnessMeter $loudness;

    private readonly TruePeakMeter $truePeak;

    private readonly ChannelMeter $channels;

    private readonly ?StereoMeter $stereo;

    private readonly ?WaveformWriter $waveform;

    private readonly Deinterleaver $deinterleaver;

    private int $samples = 0;

    private ?Deinterleaver $warming = null;

    /**
     * @param  ?ByteSink  $waveform  where the waveform go, null where none are wanted
     * @param  int  $expected  samples that there will be, for the waveform
     * @param  int  $begins  the sample of the whole sound at which this begins to listen
     *
     * @throws Failure
     */
    public function __construct(private readonly int $rate, private readonly Layout $layout, ?ByteSink $waveform = null,
        int $expected = 0, int $begins = 0)
    {
        $this->loudness = new LoudnessMeter($rate, $layout, $begins);
        $this->truePeak = new TruePeakMeter;
        $this->channels = new ChannelMeter($begins);
        $this->stereo = $layout->count() === 2 ? new StereoMeter($rate) : null;
        $this->waveform = $waveform === null ? null : new WaveformWriter($waveform, $rate, $layout->count(), $expected, $begins);
        $this->deinterleaver = new Deinterleaver($layout->count(),
            array_values(array_filter([$this->waveform, $this->loudness, $this->truePeak, $this->channels, $this->stereo])));
    }

    /**
     * To a whole track as it would be made: from where the picture starts.
     *
     * @throws Failure
     */
    public static function to(OpenedSource $source, Track $track, ?ByteSink $waveform = null,
        Progress $progress = new NoProgress): Measurements
    {
        $analyzer = self::of($source, $track, $waveform);
        $analyzer->hear($source, $track, 0, PHP_INT_MAX, $progress);

        return $analyzer->finish();
    }

    /**
     * Made for a track; the file of the waveform is laid out when this returns.
     *
     * @param  int  $begins  0, or what {@see self::middle()} gave
     *
     * @throws Failure
     */
    public static function of(OpenedSource $source, Track $track, ?ByteSink $waveform, int $begins = 0): self
    {
        [$audio, , $expected] = self::presented($source, $track);

        return new self($audio->rate, $audio->layout, $waveform, $expected, $begins);
    }

    /**
     * Measures a stretch. Where it is the first and does not start at the start, what comes just before is measured as well, so that
     * filters are where they would be, and is not counted.
     *
     * @throws Failure
     */
    public function hear(OpenedSource $source, Track $track, int $from, int $until, Progress $progress = new NoProgress): void
    {
        [, $segments, $expected] = self::presented($source, $track);
        $warm = $this->samples === 0 ? min($from, Deinterleaver::run()) : 0;
        $part = Segment::between($segments, $from - $warm, min($until, $expected));
        foreach ((new TrackDecoder($source->media, $track))->blocks($part) as $block) {
            if ($warm > 0) {
                $count = min($warm, $block->frames);
                $this->warm($block->part(0, $count), $warm === $count);
                $warm -= $count;
                $block = $block->part($count, $block->frames - $count);
            }
            $this->take($block);
            $progress->reached(Phase::Measuring, min($this->samples, $expected), $expected);
        }
    }

    /**
     * Where a second process can begin to listen while the first hears what is before; null where it is not worth it.
     *
     * @throws CodecNotDecodable
     */
    public static function middle(OpenedSource $source, Track $track): ?int
    {
        [$audio, , $expected] = self::presented($source, $track);
        $steps = (new WaveformLayout($audio->rate, $audio->channels(), $expected))->levels();
        $coarsest = $steps[count($steps) - 1];
        $middle = intdiv($expected, 2 * $coarsest) * $coarsest;

        return $middle > 0 && $expected > self::SECONDS_WORTH_HALVING * $audio->rate ? $middle : null;
    }

    /** @throws LibraryMissing */
    public function take(Block $block): void
    {
        $this->deinterleaver->take($block);
        $this->samples += $block->frames;
    }

    /** Takes in what another process has measured from where this one ended. */
    public function join(PartialAnalysis $later): void
    {
        $this->loudness->join($later->loudness);
        $this->truePeak->join($later->truePeak);
        $this->channels->join($later->channels);
        if ($later->stereo !== null) {
            $this->stereo?->join($later->stereo);
        }
        $this->samples += $later->samples;
    }

    /**
     * @throws Failure
     */
    public function part(): PartialAnalysis
    {
        $this->deinterleaver->finish();
        $this->waveform?->finish();

        return new PartialAnalysis($this->loudness, $this->truePeak, $this->channels, $this->stereo, $this->samples);
    }

    /**
     * @throws Failure
     */
    public function finish(): Measurements
    {
        $this->deinterleaver->finish();
        $this->waveform?->finish();

        return new Measurements($this->channels->levels(), $this->truePeak->peaks(), $this->loudness->loudness(), $this->channels->clips(),
            $this->channels->places(), $this->stereo?->image(), $this->samples, $this->rate, $this->loudness->alone());
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    private function warm(Block $block, bool $last): void
    {
        $this->warming ??= new Deinterleaver($this->layout->count(), [$this->loudness, $this->truePeak]);
        $this->loudness->warm(true);
        $this->warming->take($block);
        if ($last) {
            $this->loudness->warm(false);
        }
    }

    /**
     * @return array{AudioFormat, list<Segment>, int} audio format, what is presented, how many samples
     *
     * @throws CodecNotDecodable
     */
    private static function presented(OpenedSource $source, Track $track): array
    {
        $audio = $track->sound;
        if ($audio === null || ! Codecs::canDecode($audio)) {
            throw $audio === null ? CodecNotDecodable::named('of no known form') : CodecNotDecodable::of($audio);
        }
        $segments = $track->timeline->from(PresentationStart::find($source->tracks, $audio->rate));

        return [$audio, $segments, Segment::total($segments)];
    }
}
