<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Video\PictureModule;
use Octavox\Core\Container\Asf\AsfFormat;
use Octavox\Core\Container\Avi\AviFormat;
use Octavox\Core\Container\Flv\FlvFormat;
use Octavox\Core\Container\IsoMedia\IsoMediaFormat;
use Octavox\Core\Container\Matroska\MatroskaFormat;
use Octavox\Core\Container\ProgramStream\ProgramFormat;
use Octavox\Core\Container\TransportStream\TransportFormat;
use Octavox\Core\Media\Codec;

/** The registry: every kind of file whose pictures can be copied. */
final class PictureSources
{
    private const INDEXED = [IsoMediaFormat::WITH_PICTURES, MatroskaFormat::WITH_PICTURES, AviFormat::WITH_PICTURES,
        FlvFormat::WITH_PICTURES, AsfFormat::WITH_PICTURES];

    /** In these nothing but the coding itself tells where a picture begins. */
    private const STREAMED = [ProgramFormat::WITH_PICTURES, TransportFormat::WITH_PICTURES];

    /** @param  string  $container  as the reader calls it */
    public static function offers(string $container, Codec $picture): bool
    {
        $module = CodecModules::of($picture);

        return in_array($container, array_merge(...self::INDEXED), true)
            || in_array($container, array_merge(...self::STREAMED), true) && $module instanceof PictureModule && $module->isStreamed;
    }
}
