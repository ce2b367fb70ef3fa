<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Packet;
use Octavox\Core\Container\Media;
use Octavox\Core\Container\Remark;
use Octavox\Core\Container\Track;
use Octavox\Core\Tag\Tags;

/** An opened WAV file. */
final class WaveFile implements Media
{
    private const FRAMES = 16384;

    /** @param  list<Remark>  $remarks */
    public function __construct(
        private readonly ByteSource $bytes,
        private readonly Track $track,
        private readonly int $dataAt,
        private readonly Tags $tags,
        private readonly array $remarks,
    ) {
    }

    public function container(): string
    {
        return 'wav';
    }

    public function source(): ByteSource
    {
        return $this->bytes;
    }

    public function tracks(): array
    {
        return [$this->track];
    }

    public function tags(): Tags
    {
        return $this->tags;
    }

    public function remarks(): array
    {
        return $this->remarks;
    }

    public function packets(Track $track, int $from, int $until): iterable
    {
        $width = $this->track->sound?->frameBytes() ?? 0;
        if ($width === 0) {
            throw CodecNotDecodable::named($this->track->sound?->label() ?? 'of no form');
        }
        $until = min($until, $this->track->timeline->samples());
        for ($at = $from; $at < $until; $at += $count) {
            $count = min(self::FRAMES, $until - $at);
            yield new Packet($this->bytes->read($this->dataAt + $at * $width, $count * $width), $at, $count);
        }
    }
}
