<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\Pcm\Rounding;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\PresentationStart;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\Shape;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\Piece;

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
                $segments = (new Shape(pieces: [new Piece($from, $from + $length)]))->cut($track->timeline->from(PresentationStart::of($source->tracks, $audio->rate)));
                $encoder = Codecs::encoder(new AudioFormat(Codec::Flac, $audio->rate, $audio->layout, null, '', 0, '', self::BITS), RateControl::none(), $length);
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

        return $packed[1] === 0 ? null : 8 * $packed[0] / $packed[1] / $audio->channels();
    }

    /** Whether the size of what is planned depends on that. */
    public static function concerns(Plan $plan): bool
    {
        return $plan->picture === null && ! $plan->isKept() && Outputs::named($plan->format)?->capabilities()->fidelity === Fidelity::Lossless;
    }

    /**
     * @param  Plan  $plan  one that it concerns
     * @param  ?float  $bits  what {@see self::bits()} gave
     */
    public static function foretell(Plan $plan, ?float $bits): Plan
    {
        return $bits === null ? $plan : $plan->expecting(self::bytes($bits, $plan->audio, $plan->samples));
    }

    /** Bytes of a result; each further bit of a sample holds what cannot be foretold. */
    private static function bytes(float $bits, AudioFormat $audio, int $samples): int
    {
        $each = $audio->bits() >= self::BITS ? $bits + $audio->bits() - self::BITS : max(0.5, $bits - self::BITS + $audio->bits());

        return (int) ($samples * $audio->channels() * $each / 8) + 8192;
    }
}
