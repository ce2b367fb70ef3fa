<?php

declare(strict_types=1);

namespace App\Outside\Publishing;

use App\Files\MediaType;
use Octavox\Core\Json\Fields;

/** One episode that is published. Whatever a host writes down, it is served under a name and with a type that are made here. */
final readonly class Episode
{
    /**
     * @param  string  $guid  32 hexadecimal figures, for ever the same
     * @param  string  $file  its name at the host: its guid and an extension
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
        [$guid, $file, $type] = [$fields->text('guid'), $fields->text('file'), $fields->text('type')];
        if (preg_match('/^[0-9a-f]{32}$/D', $guid) !== 1 || preg_match('/^'.$guid.'\.[a-z0-9]{1,8}$/D', $file) !== 1
            || ! MediaType::isSound($type)) {
            throw new \UnexpectedValueException('An episode has a name or a type that is none.');
        }

        return new self($guid, $file, $fields->text('title'), $fields->text('description'), $fields->float('seconds'),
            $fields->number('bytes'), $type, $fields->number('published'));
    }
}
