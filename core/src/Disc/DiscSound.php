<?php

declare(strict_types=1);

namespace Octavox\Core\Disc;

use Octavox\Core\Media\Codec;

/** One sound track of a title, as the disc's tables describe it. */
final readonly class DiscSound
{
    /**
     * @param  int  $stream  its number in the program stream, sub-streams from 0x100 on
     * @param  int  $channels  as the tables say
     * @param  ?string  $language  three letters (ISO 639-2), null where not stated
     * @param  string  $purpose  such as `Commentary`; empty where it is the sound of the picture
     */
    public function __construct(public int $stream, public Codec $codec, public int $channels, public int $rate, public ?string $language,
        public string $purpose) {}
}
