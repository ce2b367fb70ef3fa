<?php

declare(strict_types=1);

namespace App\Outside\Publishing;

use Octavox\Core\Json\Fields;

/** One episode that is published. */
final readonly class Episode
{
    /**
     * @param  string  $guid  for ever the same
     * @param  string  $file  its name at the host
     * @param  int  $published  seconds of the epoch
     */
    public function __construct(public string $guid, public string $file, public string $title, public string $description,
        public float $seconds, public int $bytes, public string $type, public int $published) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['guid' => $this->guid, 'file' => $this->file, 'title' => $this->title, 'description' => $this->description,
            'seconds' => $this->seconds, 'bytes' => $this->bytes, 'type' => $this->type, 'published' => $this->published];
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        return new self($fields->text('guid'), basename($fields->text('file')), $fields->text('title'), $fields->text('description'),
            $fields->float('seconds'), $fields->number('bytes'), $fields->text('type'), $fields->number('published'));
    }
}
