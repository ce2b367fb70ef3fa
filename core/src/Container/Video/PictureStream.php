<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Copying;
use Octavox\Core\Media\Codec;

/** What a picture track needs to be copied into another container, bit for bit. */
final readonly class PictureStream
{
    use Copying;

    /**
     * @param  int  $timescale  ticks a second of its samples' times
     * @param  string  $configuration  the codec's own record: avcC, hvcC, av1C, or what MPEG-4 Visual keeps in its descriptor
     * @param  string  $entry  the whole sample entry where it comes from MP4 or QuickTime: colour, aspect and all
     * @param  string  $matrix  the nine numbers of `tkhd` that turn the picture, empty where it is not turned
     * @param  ?array{int, int}  $spacing  width and height of a picture element, null where it is square or not told
     * @param  ?int  $firstShown  ticks of showing at which the presentation begins, null where it is the earliest picture
     * @param  ?array{int, int, int, bool}  $colour  primaries, transfer, matrix (ISO/IEC 23091-2), full range
     * @param  string  $bitmapHeader  the bytes of {@see \Octavox\Core\Container\BitmapHeader}, of pictures that came with one
     */
    public function __construct(
        public Codec $codec,
        public int $width,
        public int $height,
        public int $timescale,
        public float $perSecond,
        public string $configuration = '',
        public string $entry = '',
        public string $matrix = '',
        public ?array $spacing = null,
        public ?array $colour = null,
        public ?string $language = null,
        public ?int $firstShown = null,
        public string $bitmapHeader = '',
    ) {}

    /**
     * With what its sample entry tells.
     *
     * @param  ?array{int, int}  $spacing  square is told as null
     * @param  ?array{int, int, int, bool}  $colour
     */
    public function described(string $configuration, string $entry, ?array $spacing, ?array $colour): self
    {
        $own = ['configuration' => $configuration, 'entry' => $entry, 'spacing' => $spacing === [1, 1] ? null : $spacing,
            'colour' => $colour];

        return $this->copy($own);
    }
}
