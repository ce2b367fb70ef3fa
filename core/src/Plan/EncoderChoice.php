<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\EnoughRate;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Track;
use Octavox\Core\Order\SoundSpec;

/** Which numbers an encoder is given: exactly those that were asked for; where nothing was, those that lose least and raise nothing. */
final readonly class EncoderChoice
{
    /** How much above its own bit rate a lossy source may come out and still count as not raised: containers add a little. */
    public const SLACK = 1.02;

    private const LOWEST_RATE = 4000;

    private const HIGHEST_RATE = 384_000;

    public function __construct(private OutputFormat $format, private string $path) {}

    /**
     * The rate that was asked for; where none was the source's own, or the nearest that loses nothing.
     *
     * @param  ?int  $asked  Hz
     * @param  int  $own  Hz
     *
     * @throws CannotPlan
     */
    public function rate(?int $asked, int $own): int
    {
        $rate = $asked ?? $own;
        if ($asked !== null && ($rate < self::LOWEST_RATE || $rate > self::HIGHEST_RATE)) {
            throw (new Violations\RateBeyond(rate: $rate, nearest: [max(self::LOWEST_RATE, min(self::HIGHEST_RATE, $rate))]))
                ->at($this->path);
        }
        $possible = $this->format->capabilities()->rates;
        if ($possible === [] || in_array($rate, $possible, true)) {
            return $rate;
        }
        if ($asked !== null) {
            throw (new Violations\Rate(format: $this->format->label(), rate: $rate, nearest: self::nearest($possible, $rate)))
                ->at($this->path);
        }
        // The next higher one loses nothing; above the highest, the highest.
        foreach ($possible as $candidate) {
            if ($candidate >= $rate) {
                return $candidate;
            }
        }

        return $possible[count($possible) - 1];
    }

    /** @throws CannotPlan where such a file cannot have so many bits */
    public function requireBitDepth(?int $asked): void
    {
        $possible = $this->format->capabilities()->bitDepths;
        if ($asked !== null && ! in_array($asked, $possible, true)) {
            throw (new Violations\BitDepth(format: $this->format->label(), bits: $asked, nearest: self::nearest($possible, $asked)))
                ->at($this->path);
        }
    }

    /**
     * A bit rate that is asked for must be had; one that is only to be near goes as far as the format does; where nothing is asked a lossy
     * source is not raised within its codec, and gets in another one what it needs there ({@see EnoughRate}).
     *
     * @param  ?RateControl  $asked  null leaves it to the source
     * @param  AudioFormat  $audio  of the result
     * @param  AudioFormat  $from  of the source
     *
     * @throws CannotPlan
     */
    public function rateControl(?RateControl $asked, AudioFormat $audio, Track $track, AudioFormat $from): RateControl
    {
        if ($asked?->quality !== null && ! $this->format->capabilities()->variable) {
            throw (new Violations\VariableRate(format: $this->format->label()))->at($this->path);
        }
        $modes = $this->format->capabilities()->rateModes;
        if ($asked?->mode !== null && ! in_array($asked->mode, $modes, true)) {
            throw (new Violations\RateMode(format: $this->format->label(), mode: $asked->mode->value,
                nearest: array_map(fn (RateMode $mode): string => $mode->value, $modes)))->at($this->path);
        }
        $rateControl = $this->format->rateControl($asked ?? RateControl::none(), $audio)->held($asked?->mode);
        if ($asked !== null && $asked->kbps > 0 && $asked->exact && $rateControl->kbps !== $asked->kbps) {
            throw (new Violations\BitRate(format: $this->format->label(), kbps: $asked->kbps, rate: $audio->rate, channels: $audio
                ->channels(), nearest: $rateControl->kbps === 0 ? [] : [$rateControl->kbps]))->at($this->path);
        }
        $own = self::kbps($track);
        if ($asked !== null || $rateControl->kbps === 0 || $own === 0.0 || CodecModules::of($from->codec)->isLossless()) {
            return $rateControl;
        }

        return $from->codec === $audio->codec ? $this->notAbove($own, $rateControl, $audio)
            : $this->enough(EnoughRate::kbps($from, $own, $audio), $rateControl, $audio);
    }

    /** Of the same codec a rate above the source's own only makes the file larger. */
    private function notAbove(float $own, RateControl $rateControl, AudioFormat $audio): RateControl
    {
        foreach ([(int) round($own), ...array_reverse($this->format->capabilities()->kbps)] as $candidate) {
            if ($rateControl->kbps <= $own * self::SLACK) {
                break;
            }
            $rateControl = $this->format->rateControl(RateControl::exactly(max(1, $candidate)), $audio);
        }

        return $rateControl;
    }

    /** Of another codec the least step at which nothing more is lost to the ear; never above what is usual. */
    private function enough(int $kbps, RateControl $usual, AudioFormat $audio): RateControl
    {
        for ($candidate = $kbps; $candidate < $usual->kbps; $candidate++) {
            $rateControl = $this->format->rateControl(RateControl::exactly($candidate), $audio);
            if ($rateControl->kbps >= $kbps) {
                return $rateControl;
            }
        }

        return $usual;
    }

    /**
     * What the encoder is told besides, where its format has such a choice.
     *
     * @throws CannotPlan
     */
    public function settings(SoundSpec $spec): EncoderSettings
    {
        $capabilities = $this->format->capabilities();
        $refuse = fn (string $setting): CannotPlan => (new Violations\EncoderSetting(format: $this->format->label(), setting: $setting))
            ->at($this->path);
        if ($spec->stereo !== null && ! $capabilities->stereoCoding) {
            throw $refuse('joint or separate stereo');
        }
        if ($spec->checksums === true && ! $capabilities->checksums) {
            throw $refuse('checksums in its frames');
        }
        if ($spec->compression !== null && $capabilities->compression === []) {
            throw $refuse('levels of compression');
        }
        if ($spec->compression !== null && ! in_array($spec->compression, $capabilities->compression, true)) {
            throw (new Violations\Compression(format: $this->format->label(), level: $spec->compression,
                nearest: self::nearest($capabilities->compression, $spec->compression)))->at($this->path);
        }

        return new EncoderSettings($spec->stereo, $spec->checksums, $spec->compression);
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
    private static function nearest(array $possible, int $asked): array
    {
        $below = array_filter($possible, fn (int $one): bool => $one < $asked);
        $above = array_filter($possible, fn (int $one): bool => $one > $asked);

        return [...array_slice($below, -1), ...array_slice($above, 0, 1)];
    }
}
