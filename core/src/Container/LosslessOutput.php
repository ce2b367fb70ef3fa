<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** What files of losslessly compressed samples have in common: the source's bit depth and rate, nothing to set. */
abstract class LosslessOutput implements OutputFormat
{
    /** Part of the uncompressed size that is left, as a rule, at 16 and at 24 bits. */
    private const SHARE_16 = 0.6;

    private const SHARE_24 = 0.65;

    public function container(): string
    {
        return $this->name();
    }

    abstract protected function codec(): Codec;

    /** The order in which the codec holds the channels. */
    abstract protected function ordered(Layout $layout): Layout;

    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        $asked = $bits ?? (CodecModules::of($source->codec)->isLossless() && $source->bits() > 0 ? $source->bits() : 16);
        $widths = $this->capabilities()->bitDepths;
        $width = $widths[count($widths) - 1] ?? 16;
        foreach (array_reverse($widths) as $possible) {
            $width = $possible >= $asked ? $possible : $width;
        }
        // What is copied keeps its own odd bit depth.
        $width = $bits === null && $source->codec === $this->codec() && $source->bitDepth > 0 ? $source->bitDepth : $width;

        return new AudioFormat($this->codec(), $rate, $this->ordered($layout), null, '', 0, '', $width);
    }

    public function rateControl(RateControl $asked, AudioFormat $audio): RateControl
    {
        return RateControl::none();
    }

    public function carries(AudioFormat $source): bool
    {
        return $source->codec === $this->codec();
    }

    public function presented(AudioFormat $audio, int $samples): int
    {
        return $samples;
    }

    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): ?int
    {
        return $skip === 0 && $samples === $coded ? $samples : null;
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return (int) ($samples * $audio->channels() * $audio->bitDepth / 8 * ($audio->bitDepth > 16 ? self::SHARE_24
            : self::SHARE_16)) + 4096;
    }
}
