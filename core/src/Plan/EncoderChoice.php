<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Track;

/** Which numbers an encoder is given: exactly those that were asked for; where nothing was, those that lose least and raise nothing. */
final class EncoderChoice
{
    /** How much above its own bit rate a lossy source may come out and still count as not raised: containers add a little. */
    public const SLACK = 1.02;

    private const LOWEST_RATE = 4000;

    private const HIGHEST_RATE = 384_000;

    /**
     * The wished rate; without a wish the source's own, or the nearest that loses nothing.
     *
     * @param  ?int  $wished  Hz
     * @param  int  $own  Hz
     *
     * @throws CannotPlan
     * @throws NotOffered
     */
    public static function rate(OutputFormat $format, ?int $wished, int $own): int
    {
        $rate = $wished ?? $own;
        if ($wished !== null && ($rate < self::LOWEST_RATE || $rate > self::HIGHEST_RATE)) {
            throw CannotPlan::rate($rate);
        }
        $possible = $format->capabilities()->rates;
        if ($possible === [] || in_array($rate, $possible, true)) {
            return $rate;
        }
        if ($wished !== null) {
            throw NotOffered::rate($format->label(), $rate, self::nearest($possible, $rate));
        }
        // The next higher one loses nothing; above the highest, the highest.
        foreach ($possible as $candidate) {
            if ($candidate >= $rate) {
                return $candidate;
            }
        }

        return $possible[count($possible) - 1];
    }

    /** @throws NotOffered where such a file cannot have so many bits */
    public static function requireBits(OutputFormat $format, ?int $wished): void
    {
        $possible = $format->capabilities()->bitDepths;
        if ($wished !== null && ! in_array($wished, $possible, true)) {
            throw NotOffered::bits($format->label(), $wished, self::nearest($possible, $wished));
        }
    }

    /**
     * The setting for a form. A bit rate that is asked for must be had; a preset goes as far as the format does; without a wish a lossy source is not raised.
     *
     * @param  AudioFormat  $from  of the source
     *
     * @throws NotOffered
     */
    public static function setting(OutputFormat $format, RateControl $wished, AudioFormat $audio, Track $track, AudioFormat $from): RateControl
    {
        if ($wished->quality !== null && ! $format->capabilities()->variable) {
            throw NotOffered::variable($format->label());
        }
        $setting = $format->setting($wished, $audio);
        if ($wished->kbps > 0 && $wished->exact && $setting->kbps !== $wished->kbps) {
            throw NotOffered::kbps($format->label(), $wished->kbps, $setting->kbps, $audio->rate, $audio->channels());
        }
        $own = self::kbps($track);
        if (! $wished->isNone() || $setting->kbps === 0 || $own === 0.0 || $from->codec->isLossless()) {
            return $setting;
        }
        foreach ([(int) round($own), ...array_reverse($format->capabilities()->kbps)] as $candidate) {
            if ($setting->kbps <= $own * self::SLACK) {
                break;
            }
            $setting = $format->setting(RateControl::constant(max(1, $candidate)), $audio);
        }

        return $setting;
    }

    /** Bit rate of a track's coded sound, in 1000 bits a second. */
    public static function kbps(Track $track): float
    {
        return $track->seconds() > 0 ? $track->codedBytes / $track->seconds() / 125 : 0.0;
    }

    /**
     * The one below and the one above, as far as there are any.
     *
     * @param  list<int>  $possible  rising
     * @return list<int>
     */
    private static function nearest(array $possible, int $wished): array
    {
        $below = array_filter($possible, fn (int $one): bool => $one < $wished);
        $above = array_filter($possible, fn (int $one): bool => $one > $wished);

        return [...array_slice($below, -1), ...array_slice($above, 0, 1)];
    }
}
