<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Container\Raw\HeaderlessFormatUnknown;
use Octavox\Core\Container\StatedAs;
use Octavox\Core\Disc\StatedTitle;

/** The words by which somebody says as what a source is to be opened: `title:2` of a video disc, `pcm16:48000:2` without a header. */
final class Stated
{
    /**
     * @param  ?string  $text  null for what says itself what it is
     *
     * @throws HeaderlessFormatUnknown
     */
    public static function parse(?string $text): ?StatedAs
    {
        return $text === null ? null : StatedTitle::parse($text) ?? HeaderlessFormat::parse($text);
    }
}
