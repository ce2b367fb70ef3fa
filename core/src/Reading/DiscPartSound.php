<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Json\Fields;
use Octavox\Core\Media\Track;

/** A sound track of a title, in words and figures. */
final readonly class DiscPartSound
{
    /**
     * @param  string  $purpose  such as `Commentary`; empty where it is the sound of the picture
     */
    private function __construct(public string $codec, public string $layout, public ?string $language, public float $kbps,
        public string $purpose) {}

    public static function of(Track $track): self
    {
        return new self(CodecModules::describeTrack($track), $track->sound?->layout->name() ?? '', $track->language, $track->kbps(), $track
            ->name);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['codec' => $this->codec, 'layout' => $this->layout, 'language' => $this->language, 'kbps' => $this->kbps,
            'purpose' => $this->purpose];
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        return new self($fields->text('codec'), $fields->text('layout'), $fields->textOrNull('language'), $fields->float('kbps'),
            $fields->text('purpose'));
    }
}
