<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Asf;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Container\Media;
use Octavox\Core\Container\Remark;
use Octavox\Core\Container\Track;
use Octavox\Core\Tag\Tags;

/** An opened ASF file: its facts only. */
final class AsfFile implements Media
{
    /**
     * @param  list<Track>  $tracks
     * @param  list<Remark>  $remarks
     */
    public function __construct(private readonly ByteSource $bytes, private readonly array $tracks, private readonly Tags $tags, private readonly array $remarks)
    {
    }

    public function container(): string
    {
        return 'asf';
    }

    public function source(): ByteSource
    {
        return $this->bytes;
    }

    public function tracks(): array
    {
        return $this->tracks;
    }

    public function tags(): Tags
    {
        return $this->tags;
    }

    public function chapters(): array
    {
        return [];
    }

    public function remarks(): array
    {
        return $this->remarks;
    }

    public function packets(Track $track, int $from, int $until): iterable
    {
        throw CodecNotDecodable::named($track->sound?->label() ?? 'in a form nobody knows');
    }
}
