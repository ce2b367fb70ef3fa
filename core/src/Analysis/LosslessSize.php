<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\Pcm\Rounding;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\PresentationStart;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Reading\OpenedSource;

/** How far sound can be compressed without loss: a few stretches of it are. */
final class LosslessSize
{
    /** Stretches, spread over the track. */
    private const STRETCHES = 5;

    private const SECONDS = 1.0;

    private const MOST_CHANNELS = 8;

    private const BITS = 16;

    /**
     * Bits that a sample of 16 bits takes in FLAC; null where that cannot be tried.
     *
     * @param  int  $samples  of the whole track
     */
    public static function bits(OpenedSource $source, Track $track, int $samples): ?float
    {
        $audio = $track->sound;
        if ($audio === null || $samples === 0 || $audio->channels() > self::MOST_CHANNELS) {
            return null;
        }
        $length = (int) min($samples, self::SECONDS * $audio->rate);
        $packed = [0, 0];
        try {
            for ($stretch = 0; $stretch < self::STRETCHES; $stretch++) {
                $from = intdiv(($samples - $length) * (2 * $stretch + 1), 2 * self::STRETCHES);
                $segments = Segment::between($track->timeline->from(PresentationStart::of($source->tracks, $audio->rate)),
                    $from, $from + $length);
                $encoder = Codecs::encoder(new AudioFormat(Codec::Flac, $audio->rate, $audio->layout, null, '', 0, '', self::BITS),
                    RateControl::none(), $length);
                $rounding = new Rounding(self::BITS, $audio->rate, $audio->layout);
                $count = function (iterable $packets) use (&$packed): void {
                    /** @var Packet $packet */
                    foreach ($packets as $packet) {
                        $packed = [$packed[0] + strlen($packet->data), $packed[1] + $packet->length];
                    }
                };
                foreach ((new TrackDecoder($source->media, $track))->blocks($segments) as $block) {
                    foreach ($rounding->take($block) as $rounded) {
                        $count($encoder->encode($rounded));
                    }
                }
                $count($encoder->finish());
            }
        } catch (Failure) {
            return null;
        }

        // To as many digits as are kept of it, so that everybody predicts the same.
        return $packed[1] === 0 ? null : round(8 * $packed[0] / $packed[1] / $audio->channels(), 3);
    }
}
