<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Disc\DiscTitle;
use Octavox\Core\Disc\DiscUnusable;
use Octavox\Core\Disc\StatedTitle;
use Octavox\Core\Disc\VideoDisc;
use Octavox\Core\Failure;
use Octavox\Core\Json\Fields;
use Octavox\Core\Media\Track;

/** What is on a disc, as somebody chooses from it: the titles of a video disc, the tracks of an audio disc. */
final readonly class DiscContents
{
    /**
     * @param  string  $label  what it is called; empty where nothing says it
     * @param  string  $performer  of an audio disc
     * @param  list<DiscPart>  $parts
     */
    private function __construct(public bool $isVideo, public string $label, public string $performer, public array $parts) {}

    /** @throws Failure where it is no disc, or none that can be read */
    public static function of(string $path): self
    {
        $bytes = FileBytes::open($path);
        if (VideoDisc::isOne($bytes)) {
            $disc = VideoDisc::open($bytes);

            return new self(true, $disc->label(), '', array_map(fn (DiscTitle $title): DiscPart => self::title($path, $title),
                $disc->titles()));
        }
        $reading = Reader::read($path);
        if ($reading->container !== 'cue') {
            throw DiscUnusable::none($path);
        }
        $parts = [];
        foreach ($reading->chapters as $index => $chapter) {
            $until = $reading->chapters[$index + 1]->starts ?? $reading->seconds;
            $parts[] = new DiscPart($chapter->disc->number ?? $index + 1, $chapter->title, max(0.0, $until - $chapter->starts), 0, 1, [],
                '', $chapter->disc);
        }
        $tags = $reading->tags->values();

        return new self(false, $tags['album'] ?? '', $tags['album_artist'] ?? '', $parts);
    }

    private static function title(string $path, DiscTitle $title): DiscPart
    {
        $sounds = [];
        $obstacle = '';
        try {
            $reading = Reader::read($path, new StatedTitle($title->number));
            $sounds = array_map(fn (Track $track): DiscPartSound => DiscPartSound::of($track), $reading->sound());
        } catch (Failure $failure) {
            $obstacle = $failure->getMessage();
        }

        return new DiscPart($title->number, '', $title->seconds(), $title->chapters(), $title->angles, $sounds, $obstacle);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['video' => $this->isVideo, 'label' => $this->label, 'performer' => $this->performer,
            'parts' => array_map(fn (DiscPart $part): array => $part->toArray(), $this->parts)];
    }

    /**
     * @param  array<array-key, mixed>  $facts  what {@see self::toArray()} gave
     *
     * @throws \UnexpectedValueException where it is not that
     */
    public static function fromArray(array $facts): self
    {
        $fields = new Fields($facts);

        return new self(($facts['video'] ?? false) === true, $fields->text('label'), $fields->text('performer'),
            array_map(DiscPart::fromFields(...), $fields->each('parts')));
    }
}
