<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Json\Fields;
use Octavox\Core\Tag\DiscTrack;

/** A title of a video disc or a track of an audio disc. */
final readonly class DiscPart
{
    /**
     * @param  string  $name  empty where it has none
     * @param  int  $chapters  how many it has
     * @param  list<DiscPartSound>  $sounds  of a title
     * @param  ?DiscTrack  $track  what an audio disc says of it
     * @param  string  $obstacle  what keeps it from being taken, in one sentence; empty where nothing does
     */
    public function __construct(public int $number, public string $name, public float $seconds, public int $chapters, public int $angles,
        public array $sounds, public string $obstacle,
        public ?DiscTrack $track = null) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['number' => $this->number, 'name' => $this->name, 'seconds' => round($this->seconds, 3), 'chapters' => $this->chapters,
            'angles' => $this->angles, 'sounds' => array_map(fn (DiscPartSound $one): array => $one->toArray(), $this->sounds),
            'obstacle' => $this->obstacle, 'track' => $this->track?->toArray()];
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        return new self($fields->number('number'), $fields->text('name'), $fields->float('seconds'), $fields->number('chapters'),
            $fields->number('angles'), array_map(DiscPartSound::fromFields(...), $fields->each('sounds')), $fields->text('obstacle'),
            is_array($track = $fields->all()['track'] ?? null) ? DiscTrack::fromArray($track) : null);
    }
}
