<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Media\AudioFormat;

/** One sound track of a video that is being written. */
final readonly class VideoSound
{
    /**
     * @param  int  $late  samples after the picture at which it begins
     * @param  int  $skip  decoded samples that are not presented before
     * @param  int  $samples  that are presented
     * @param  string  $first  the first packet, of which some descriptions repeat facts
     */
    public function __construct(public AudioFormat $audio, public int $late, public int $skip, public int $samples,
        public ?string $language, public string $name, public string $first) {}
}
