<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Media\Track;

/** How many pictures there are, and the XXH128 of all of them one after another. */
final class PictureSum
{
    /** Pictures after which somebody may want to know that it is still at work. */
    private const BETWEEN_SIGNS = 64;

    private readonly \HashContext $hash;

    private int $count = 0;

    public function __construct()
    {
        $this->hash = hash_init('xxh128');
    }

    /**
     * @param  callable(): void  $sign
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function compute(VideoSource $media, Track $track, callable $sign): string
    {
        $sum = new self;
        foreach ($media->pictures($track) as $sample) {
            $sum->add($sample);
            if ($sum->count % self::BETWEEN_SIGNS === 0) {
                $sign();
            }
        }

        return $sum->result();
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function add(PictureSample $sample): void
    {
        hash_update($this->hash, $sample->data->bytes());
        $this->count++;
    }

    public function result(): string
    {
        return $this->count.' '.hash_final(hash_copy($this->hash));
    }
}
