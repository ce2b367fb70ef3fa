<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Container\Raw\HeaderlessFormatUnknown;
use Octavox\Core\Failure;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/**
 * What a file without a header most likely holds, computed from its bytes.
 *
 * Sound that is read as what it is can be foretold from the samples before; read as anything else it is noise. So each kind is asked how
 * many bits a byte of the file would still need if the samples were foretold linearly (J. Makhoul, "Linear Prediction", Proc. IEEE 63,
 * 1975): half the logarithm of the remainder's power, less that of the steps in which the kind counts. The least wins. The rate shows in
 * the
 * spectrum: it is the one at which what is heard falls off as speech and music do.
 */
final class HeaderlessGuess
{
    private const PARTS = 6;

    /** Bytes of each part: a multiple of all frames that are tried. */
    private const PART_BYTES = 9600;

    /** Samples of all channels that are foretold by one set of weights. */
    private const BLOCK_SAMPLES = 800;

    /** Samples of all channels from which the next is foretold: as long a time, however many channels there are. */
    private const ORDER = 20;

    /** What a reading as one channel more must save, in bits a byte, to be believed. */
    private const MORE_CHANNELS = 0.03;

    /** By so much of their power two sides in turn are more alike at every second sample. */
    private const IN_TURN = 0.2;

    /** Beyond so many bits a byte it is noise, whatever it is read as. */
    private const NOISE = 7.4;

    /** Kinds that are asked, and by how many bits a byte each must be ahead of the most usual to be believed instead. */
    private const KINDS = ['pcm16' => 0.0, 'pcm16big' => 0.02, 'pcm24' => 0.02, 'pcm24big' => 0.05, 'ulaw' => 0.0, 'alaw' => 0.0,
        'pcm8unsigned' => 0.05, 'pcm8' => 0.1, 'float32' => 0.05, 'float32big' => 0.1, 'pcm32' => 0.15, 'pcm32big' => 0.25,
        'float64' => 0.4];

    /** Bits that the upper half of a sample needs less than the lower. */
    private const HALVES = 2.0;

    /** Guesses that are told. */
    private const TOLD = 5;

    /** Rates that are asked; of one family those that nobody can tell apart by ear either: the most usual stands for it. */
    private const RATES = [8000, 16_000, 44_100];

    /** Bytes of a GSM 06.10 frame, and the signature in the upper half of its first: ETSI EN 300 961, annex on storage. */
    private const GSM_FRAME = 33;

    private const GSM_SIGNATURE = 0xD0;

    private function __construct(private readonly string $kind, private readonly int $channels, public readonly float $bits) {}

    /**
     * @return list<HeaderlessFormat> the likeliest first
     *
     * @throws Failure
     */
    public static function guess(ByteSource $bytes): array
    {
        $parts = self::parts($bytes);
        if ($parts === []) {
            return [];
        }
        if (self::isGsm($bytes)) {
            return [HeaderlessFormat::parse('gsm:8000:1')];
        }
        $guesses = [];
        foreach (array_keys(self::KINDS) as $kind) {
            $single = self::cost($parts, $kind, 1);
            $double = self::cost($parts, $kind, 2);
            if ($single !== null && $double !== null) {
                $guesses[] = $double->bits < $single->bits - self::MORE_CHANNELS || self::isAlternating($parts, $kind) ? $double : $single;
            }
        }
        usort($guesses, fn (self $one, self $other): int => $one->bits <=> $other->bits);
        $best = $guesses[0] ?? null;
        if ($best === null || $best->bits > self::NOISE) {
            $dialogic = self::dialogic($parts);
            if ($dialogic !== null) {
                array_unshift($guesses, $dialogic);
            }
        }

        return array_map(fn (self $one): HeaderlessFormat => HeaderlessFormat::parse($one->kind.':'.$one->rate($parts).':'.$one->channels),
            array_slice($guesses, 0, self::TOLD));
    }

    /**
     * @return list<string> the liveliest of some parts of the file
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function parts(ByteSource $bytes): array
    {
        $size = $bytes->size();
        if ($size < 480) {
            return [];
        }
        $length = min(self::PART_BYTES, intdiv($size, 48) * 48);
        $parts = [];
        for ($number = 0; $number < 4 * self::PARTS; $number++) {
            $at = intdiv((int) (($size - $length) * ($number + 0.5) / (4 * self::PARTS)), 48) * 48;
            $part = $bytes->read($at, $length);
            $parts[$at] = [strlen(count_chars($part, 3)), $part];
        }
        usort($parts, fn (array $one, array $other): int => $other[0] <=> $one[0]);

        // Nothing can be said of silence.
        return array_values(array_filter(array_column(array_slice($parts, 0, self::PARTS), 1),
            fn (string $part): bool => strlen(count_chars($part,
                3)) > 2));
    }

    /**
     * Whether each sample is more like the one after next than like the next, as those of two sides are that stand in turn.
     *
     * @param  list<string>  $parts
     *
     * @throws Failure
     */
    private static function isAlternating(array $parts, string $kind): bool
    {
        $sums = [0.0, 0.0, 0.0];
        foreach ($parts as $part) {
            $block = self::decoded($part, $kind, 1);
            foreach ($block === null ? [] : array_slice(self::correlations($block, 0), 0, 3) as $lag => $sum) {
                $sums[$lag] += $sum;
            }
        }

        return $sums[0] > 0 && self::IN_TURN * $sums[0] < $sums[2] - $sums[1];
    }

    /**
     * @param  list<string>  $parts
     *
     * @throws Failure
     */
    private static function cost(array $parts, string $kind, int $channels): ?self
    {
        $bits = $count = 0.0;
        foreach ($parts as $part) {
            $block = self::decoded($part, $kind, $channels);
            if ($block === null) {
                return null;
            }
            $step = self::step($part, $kind);
            $frames = intdiv(self::BLOCK_SAMPLES, $channels);
            for ($frame = 0; $frame + $frames <= max($frames, $block->frames); $frame += $frames) {
                $own = self::needed($block->part($frame, min($frames, $block->frames - $frame)), $step);
                if ($own === null) {
                    return null;
                }
                $bits += $own;
                $count++;
            }
        }
        $bytes = HeaderlessFormat::parse("$kind:8000:1")->audio()->frameBytes();

        return $count < 1 ? null : new self($kind, $channels, $bits / $count / $bytes + self::KINDS[$kind]);
    }

    /**
     * @throws Failure
     */
    private static function decoded(string $part, string $kind, int $channels): ?Block
    {
        return Codecs::decoder(HeaderlessFormat::parse("$kind:8000:$channels")->audio())->decode(new Packet($part, 0, 0));
    }

    /**
     * Logarithm of the steps in which a kind counts, full scale being 1, on the mean over a part.
     *
     * @throws HeaderlessFormatUnknown
     */
    private static function step(string $part, string $kind): float
    {
        $format = HeaderlessFormat::parse("$kind:8000:1")->audio()->pcm;
        $idle = self::idleBits($part, $format?->bytes() ?? 2, $format->bigEndian ?? false);

        return match ($format?->kind) {
            SampleKind::MuLaw, SampleKind::ALaw => self::companded($part, $kind),
            SampleKind::Float => self::exponents($part, $format->bytes(), $format->bigEndian) + $idle,
            default => $idle + 1 - ($format->bits ?? 16),
        };
    }

    /** IEEE 754: floating numbers count in steps below their own size, so many bits as the fraction has. */
    private static function exponents(string $part, int $bytes, bool $bigEndian): float
    {
        [$shift, $bias, $fraction] = $bytes === 8 ? [4, 1023, 52] : [7, 127, 23];
        [$top, $next] = $bigEndian ? [0, 1] : [$bytes - 1, $bytes - 2];
        $sum = $count = 0;
        $nothing = str_repeat("\0", $bytes);
        for ($at = 0, $length = strlen($part) - $bytes; $at <= $length; $at += $bytes) {
            $exponent = (ord($part[$at + $top]) & 0x7F) << (8 - $shift) | ord($part[$at + $next]) >> $shift;
            // Nothing at all counts in no steps; a number without an exponent is no sound.
            if ($exponent > 0 || substr($part, $at, $bytes) !== $nothing) {
                $sum += $exponent - $bias;
                $count++;
            }
        }

        return $sum / max(1, $count) - $fraction;
    }

    /** ITU-T G.711: the step of each of the 256 values, by how often it stands there. */
    private static function companded(string $part, string $kind): float
    {
        $sum = $count = 0;
        foreach (count_chars($part, 1) as $byte => $times) {
            $code = $kind === 'ulaw' ? ~$byte & 0x7F : ($byte ^ 0x55) & 0x7F;
            $segment = $code >> 4;
            // Steps of 14-bit numbers: 2, 4 … 256 in μ-law; of 13-bit ones 2, 2, 4 … 128 in A-law.
            $sum += $times * ($kind === 'ulaw' ? $segment + 1 - 13 : max(1, $segment) - 12);
            $count += $times;
        }

        return $sum / max(1, $count);
    }

    /** Bits at the end of each sample that are never set, in whole bytes: 16 bits that stand in 24 or 32. */
    private static function idleBits(string $part, int $bytes, bool $bigEndian): int
    {
        $idle = 0;
        for ($byte = 0; $byte < $bytes - 1; $byte++) {
            $place = $bigEndian ? $bytes - 1 - $byte : $byte;
            for ($at = $place, $length = strlen($part); $at < $length; $at += $bytes) {
                if ($part[$at] !== "\0") {
                    return $idle;
                }
            }
            $idle += 8;
        }

        return $idle;
    }

    /**
     * Bits that a sample of a block needs; null where the block cannot be sound.
     *
     * @throws LibraryMissing
     */
    private static function needed(Block $block, float $step): ?float
    {
        $signals = array_map(fn (int $channel): array => self::correlations($block, $channel), range(0, $block->channels - 1));
        $power = array_sum(array_map(fn (array $signal): float => $signal[0], $signals)) / max(1, $block->samples());
        // Beyond full scale by far, or no number at all.
        if (! is_finite($power) || $power > 2.0) {
            return null;
        }
        $apart = array_map(fn (array $signal): float => self::bits($signal, $block->frames, $step), $signals);
        if ($block->channels === 1) {
            return $apart[0];
        }
        // What both sides have in common needs to be said only once.
        $cross = self::crossed($block);
        $middle = $side = [];
        foreach ($signals[0] as $lag => $left) {
            $middle[] = ($left + $signals[1][$lag] + $cross[$lag]) / 4;
            $side[] = $left + $signals[1][$lag] - $cross[$lag];
        }
        $together = self::bits($middle, $block->frames, $step) + self::bits($side, $block->frames, $step);

        // A side of nothing, or of nothing but noise, beside one that is not is what the halves of wider samples look like.
        $isEmpty = min($signals[0][0], $signals[1][0]) < 1e-20 || max($apart) > 0.7 - $step && min($apart) < max($apart) - self::HALVES;

        return $isEmpty ? max($apart) : min(array_sum($apart), $together) / 2;
    }

    /**
     * @return list<float> of a channel with itself, by the number of samples between
     *
     * @throws LibraryMissing
     */
    private static function correlations(Block $block, int $channel): array
    {
        $math = VectorMath::get();
        $first = $block->first() + $channel;
        $found = [];
        for ($lag = 0; $lag <= intdiv(self::ORDER, $block->channels); $lag++) {
            $found[] = $math->product($block->buffer, $first, $block->channels, $block->buffer, $first + $lag * $block->channels,
                $block->channels, max(0, $block->frames - $lag));
        }

        return $found;
    }

    /**
     * @return list<float> of both sides with each other, in both directions
     *
     * @throws LibraryMissing
     */
    private static function crossed(Block $block): array
    {
        $math = VectorMath::get();
        $first = $block->first();
        $found = [];
        for ($lag = 0; $lag <= intdiv(self::ORDER, 2); $lag++) {
            $count = max(0, $block->frames - $lag);
            $found[] = $math->product($block->buffer, $first, 2, $block->buffer, $first + 1 + 2 * $lag, 2, $count)
                + $math->product($block->buffer, $first + 1, 2, $block->buffer, $first + 2 * $lag, 2, $count);
        }

        return $found;
    }

    /**
     * Levinson and Durbin's recursion.
     *
     * @param  array<int, float>  $correlations
     */
    private static function bits(array $correlations, int $frames, float $step): float
    {
        $floor = 2 ** (2 * $step) / 12;
        // So little more that noise below the steps is not foretold.
        $error = $correlations[0] + $frames * $floor;
        $begin = $error;
        $weights = [];
        for ($order = 1; $order < count($correlations) && $error > 0; $order++) {
            $sum = $correlations[$order];
            for ($index = 1; $index < $order; $index++) {
                $sum -= $weights[$index] * $correlations[$order - $index];
            }
            $reflection = $sum / $error;
            $next = $weights;
            $next[$order] = $reflection;
            for ($index = 1; $index < $order; $index++) {
                $next[$index] = $weights[$index] - $reflection * $weights[$order - $index];
            }
            $weights = $next;
            $error *= max(1e-9, 1 - $reflection * $reflection);
        }
        $power = max($frames * $floor, min($begin, $error)) / max(1, $frames);

        return max(0.25, 0.5 * log(2 * M_PI * M_E * $power, 2) - $step);
    }

    /**
     * @param  list<string>  $parts
     *
     * @throws Failure
     */
    private function rate(array $parts): int
    {
        if (in_array($this->kind, ['ulaw', 'alaw', 'vox'], true)) {
            return 8000;
        }

        return SpectralRate::guess((function () use ($parts): iterable {
            foreach ($parts as $part) {
                yield self::decoded($part, $this->kind, $this->channels);
            }
        })(), self::RATES);
    }

    /**
     * @param  list<string>  $parts
     *
     * @throws Failure
     */
    private static function dialogic(array $parts): ?self
    {
        $audio = HeaderlessFormat::parse('vox:8000:1')->audio();
        $bits = 0.0;
        foreach ($parts as $part) {
            $block = Codecs::decoder($audio)->decode(new Packet($part, 0, 0));
            $own = $block === null ? null : self::needed($block, 1 - 12);
            if ($block === null || $own === null) {
                return null;
            }
            $power = VectorMath::get()->energy($block->buffer, 0, $block->samples()) / max(1, $block->samples());
            // What the samples need, less what noise of the same power would.
            $bits += $own - (0.5 * log(2 * M_PI * M_E * max(1e-12, $power), 2) + 11);
        }

        return $bits / count($parts) < -0.5 ? new self('vox', 1, self::NOISE) : null;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private static function isGsm(ByteSource $bytes): bool
    {
        $frames = min(200, intdiv($bytes->size(), self::GSM_FRAME));
        $head = $bytes->read(0, $frames * self::GSM_FRAME);
        for ($frame = 0; $frame < $frames; $frame++) {
            if ((ord($head[$frame * self::GSM_FRAME]) & 0xF0) !== self::GSM_SIGNATURE) {
                return false;
            }
        }

        return $frames >= 10;
    }
}
