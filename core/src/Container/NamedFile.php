<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** A file whose facts and tags are read, and whose sound nobody here decodes. */
final class NamedFile extends OneTrack
{
    /** @param  int  $samples  of each channel */
    public static function of(string $container, ByteSource $bytes, AudioFormat $audio, int $samples, Tags $tags): self
    {
        return new self($container, $bytes, Track::sound(1, $audio, Timeline::plain(max(0, $samples)), $bytes->size()), $tags);
    }

    /** @throws CodecNotDecodable */
    public function packets(Track $track, int $from, int $until): iterable
    {
        throw CodecNotDecodable::named($this->track->sound === null ? '' : CodecModules::describe($this->track->sound));
    }
}
