<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** What one sample entry describes: a sound, a picture with its size, or text. */
final readonly class SampleEntry
{
    private function __construct(public ?AudioFormat $sound, public Codec $codec, public string $label, public int $width,
        public int $height, public ?Box $box = null) {}

    public static function sound(AudioFormat $audio): self
    {
        return new self($audio, $audio->codec, CodecModules::describe($audio), 0, 0);
    }

    public function withSound(AudioFormat $audio): self
    {
        return new self($audio, $audio->codec, CodecModules::describe($audio), $this->width, $this->height, $this->box);
    }

    public static function picture(Codec $codec, string $label, int $width, int $height, Box $box): self
    {
        return new self(null, $codec, $label, $width, $height, $box);
    }

    /** Subtitles or a time code: the label is the entry's type. */
    public static function auxiliary(Box $box): self
    {
        return new self(null, Codec::Unknown, $box->type, 0, 0, $box);
    }
}
