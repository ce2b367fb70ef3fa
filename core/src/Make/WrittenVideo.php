<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Reading\OpenedSource;

/** What a video must be found to be when it is read back. */
final readonly class WrittenVideo
{
    /**
     * @param  string|Summing  $pictures  {@see PictureSum} of all pictures
     * @param  list<int>  $late  samples of silence before each sound track
     * @param  list<Written>  $sounds
     * @param  ?OpenedSource  $stream  the source, where its pictures were cut out of a stream of bytes
     * @param  list<string>  $auxiliaries  of each subtitle track or time code {@see AuxiliaryCopy::written()}
     */
    public function __construct(public string|Summing $pictures, public array $late, public array $sounds, public array $auxiliaries = [],
        public ?OpenedSource $stream = null) {}
}
