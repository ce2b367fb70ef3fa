<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Reading\Reading;

/** What is asked of one sound of a source, and what is known of the source. */
final readonly class SoundRequest
{
    /**
     * @param  OutputFormat  $format  how the sound is encoded where it is not kept
     * @param  ?VideoOutputFormat  $video  null where a file of sound alone is made
     */
    public function __construct(public Reading $source, public SoundSpec $spec, public Length $length, public OutputFormat $format,
        public ?VideoOutputFormat $video, public SourceKnowledge $knowledge, public MissingFacts $wanted) {}
}
