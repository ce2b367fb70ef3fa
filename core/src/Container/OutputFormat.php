<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** One kind of file that can be made of one sound track. */
interface OutputFormat
{
    /** The word in programs' output and on the command line, such as `wav`. */
    public function name(): string;

    /** What the reader calls the container of such a file. */
    public function container(): string;

    public function label(): string;

    /** Without the dot. */
    public function extension(): string;

    public function capabilities(): Capabilities;

    /**
     * The audio format nearest to the source and to what is asked that this kind of file can have.
     *
     * @param  int  $rate  Hz
     * @param  ?int  $bits  null leaves it to the source
     */
    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat;

    /** What the encoder can really be set to for this format, nearest to what is asked; the usual setting where nothing is asked. */
    public function rateControl(RateControl $asked, AudioFormat $audio): RateControl;

    /** Whether packets of the source can stand in such a file as they are. */
    public function carries(AudioFormat $source): bool;

    /** Samples that a finished file presents when so many are encoded: more where it cannot say what to leave out. */
    public function presented(AudioFormat $audio, int $samples): int;

    /**
     * The same for kept packets, which decode to $coded samples of which $skip are to be left out at the start.
     *
     * @return ?int null where such a file cannot say that
     */
    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): ?int;

    /** Bytes of the whole file: exact for PCM, near for the rest. */
    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int;

    /**
     * @param  int  $samples  that will be presented
     * @param  int  $skip  decoded samples that a player leaves out at the start, -1 where that is not known
     * @param  string  $maker  the encoder's name
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter;
}
