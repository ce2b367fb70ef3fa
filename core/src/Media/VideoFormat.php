<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** What a picture track shows. */
final readonly class VideoFormat
{
    /**
     * @param  int  $width  in coded picture elements
     * @param  float  $perSecond  mean number of pictures a second, 0 where unknown
     * @param  float  $startOffset  seconds of movie time before the first picture
     * @param  float  $seconds  length
     */
    public function __construct(public Codec $codec, public string $label, public int $width, public int $height, public float $perSecond,
        public float $startOffset, public float $seconds) {}
}
