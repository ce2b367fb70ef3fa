<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Video\PictureUnits;
use Octavox\Core\Codec\Video\Slices;
use Octavox\Core\Container\Video\StreamedPictures;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Track;

/** Whether every slice of a source's stream of pictures, from the first on that can be shown, is in the result. */
final class SliceCheck
{
    /**
     * @param  callable(): void  $sign  told now and then that it is at work
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public static function agrees(StreamedPictures $source, Track $from, VideoSource $result, Track $to, callable $sign): bool
    {
        $codec = $from->picture->codec ?? Codec::Unknown;
        $all = new Slices($codec);
        self::stream($all, $source, $from, $sign);
        $written = new Slices($codec);
        foreach ($result->pictures($to) as $picture) {
            $written->picture($picture->data->bytes(), PictureUnits::of($codec) !== null);
            $sign();
        }
        $skipped = $all->count() - $written->count();
        if ($skipped < 0 || $skipped > $all->beforeKey()) {
            return false;
        }
        $shown = $skipped === 0 ? $all : new Slices($codec, $skipped);
        if ($skipped > 0) {
            self::stream($shown, $source, $from, $sign);
        }

        return $shown->sum() === $written->sum();
    }

    private static function stream(Slices $slices, StreamedPictures $source, Track $track, callable $sign): void
    {
        foreach ($source->elementaryBytes($track) as $bytes) {
            $slices->stream($bytes);
            $sign();
        }
        $slices->finish();
    }
}
