<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Sound\Layout;

/** What somebody wants of a source; whatever is null is left to the source. */
final readonly class Wish
{
    /**
     * @param  ?int  $rate  Hz
     * @param  ?int  $bits  8, 16, 24 or 32, for uncompressed sound
     * @param  ?int  $track  the track's number
     * @param  list<int>  $joined  numbers of further tracks whose channels follow those of the first, as one sound
     */
    public function __construct(
        public OutputFormat $format,
        public RateControl $setting,
        public string $folder,
        public ?int $rate = null,
        public ?int $bits = null,
        public ?Layout $layout = null,
        public ?int $track = null,
        public NamePattern $name = new NamePattern,
        public Existing $existing = Existing::Number,
        public Length $length = Length::Sound,
        public ShapingWish $shaping = new ShapingWish,
        public array $joined = [],
    ) {
    }

    public function ofTrack(int $track): self
    {
        return new self($this->format, $this->setting, $this->folder, $this->rate, $this->bits, $this->layout, $track, $this->name, $this->existing, $this->length, $this->shaping, $this->joined);
    }

    /** @param  non-empty-list<int>  $tracks numbers */
    public function ofJoined(array $tracks): self
    {
        return new self($this->format, $this->setting, $this->folder, $this->rate, $this->bits, $this->layout, $tracks[0], $this->name, $this->existing, $this->length, $this->shaping, array_slice($tracks, 1));
    }

    public function shapedBy(ShapingWish $shaping): self
    {
        return new self($this->format, $this->setting, $this->folder, $this->rate, $this->bits, $this->layout, $this->track, $this->name, $this->existing, $this->length, $shaping, $this->joined);
    }
}
