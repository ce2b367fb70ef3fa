<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Tags;

/** Everything that a video is made of, as it is known before the first picture is written. */
final readonly class VideoParts
{
    /**
     * @param  int  $first  ticks of the picture's timescale from the first decoding to the first showing
     * @param  list<VideoSound>  $sounds
     * @param  list<Chapter>  $chapters
     * @param  float  $seconds  about how long it will be
     * @param  list<AuxiliaryTrack>  $auxiliaries
     * @param  list<Attachment>  $attachments  left out where the container carries none
     */
    public function __construct(
        public PictureStream $picture,
        public int $first,
        public array $sounds,
        public Tags $tags,
        public array $chapters,
        public float $seconds,
        public array $auxiliaries = [],
        public array $attachments = [],
    ) {}
}
