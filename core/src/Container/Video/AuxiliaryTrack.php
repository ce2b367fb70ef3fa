<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

/** A track beside picture and sound that is copied with them: subtitles, or a time code. */
final readonly class AuxiliaryTrack
{
    /**
     * @param  string  $coding  the four letters of its sample entry in MP4 and QuickTime, its codec's name in Matroska
     * @param  string  $description  the whole sample entry, or Matroska's CodecPrivate
     * @param  int  $timescale  ticks a second of its samples' times
     * @param  string  $handler  what MP4 and QuickTime call its kind, empty elsewhere
     * @param  string  $header  the media header box of MP4 and QuickTime
     */
    public function __construct(
        public string $coding,
        public string $description,
        public int $timescale,
        public ?string $language,
        public string $name,
        public string $handler = '',
        public string $header = '',
    ) {}
}
