<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Codec\Aac\AudioSpecificConfig;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Sound\Layout;

/** What the `fmt ` chunk of WAV says; AVI, ASF and Matroska have the same bytes. Numbers of the formats: RFC 2361 and its registry. */
final readonly class FormatChunk
{
    /** The last 14 bytes of the sub-format of extensible headers (KSDATAFORMAT_SUBTYPE_*). */
    public const SUBFORMAT = "\x00\x00\x00\x00\x10\x00\x80\x00\x00\xAA\x00\x38\x9B\x71";

    private const EXTENSIBLE = 0xFFFE;

    /**
     * @param  int  $blockBytes  of one block over all channels
     * @param  int  $blockSamples  samples a channel of one block, 0 where a block is no measure
     * @param  int  $bytesPerSecond  as the header says
     */
    private function __construct(public AudioFormat $audio, public int $blockBytes, public int $blockSamples, public int $bytesPerSecond) {}

    /**
     * @param  string  $bytes  14 or more
     * @param  int  $at  where they stand, for the sentence of an error
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     */
    public static function parse(string $bytes, string $name, int $at): self
    {
        $cursor = new Cursor($bytes, $name, $at);
        $tag = $cursor->u16le();
        $channels = $cursor->u16le();
        $rate = $cursor->u32le();
        $second = $cursor->u32le();
        $block = $cursor->u16le();
        $bits = $cursor->remaining() >= 2 ? $cursor->u16le() : 0;
        $extra = $cursor->remaining() >= 2 ? $cursor->u16le() : 0;
        $more = $cursor->take(min($extra, $cursor->remaining()));
        $mask = 0;
        if ($tag === self::EXTENSIBLE && strlen($more) >= 22) {
            $extension = new Cursor($more);
            $mask = $extension->skip(2)->u32le();
            $tag = $extension->u16le();
            $tag = $extension->take(14) === self::SUBFORMAT ? $tag : self::EXTENSIBLE;
        }
        if ($channels < 1 || $channels > Layout::MOST_CHANNELS || $rate < 1 || $rate > 10_000_000) {
            throw BrokenStructure::at($name, $at, sprintf('its header names %d channels at %s Hz', $channels, number_format($rate)));
        }
        $layout = Layout::fromMask($mask, $channels);
        // Samples stand in whole bytes: 20 bits take 24 (Multiple Channel Audio Data and WAVE Files, "wValidBitsPerSample").
        $width = $block % $channels === 0 && $block > 0 ? 8 * intdiv($block, $channels) : $bits;
        $pcm = match ($tag) {
            1 => $width === 8 ? SampleFormat::unsigned8() : SampleFormat::signed($width),
            3 => SampleFormat::float($width),
            6 => new SampleFormat(SampleKind::ALaw, 8),
            7 => new SampleFormat(SampleKind::MuLaw, 8),
            default => null,
        };
        if ($pcm !== null && $pcm->exists()) {
            return new self(AudioFormat::pcm($pcm, $rate, $layout), $pcm->bytes() * $channels, 1, $second);
        }

        return self::coded($tag, new AudioFormat(Codec::Unknown, $rate, $layout, null, $bytes, 0, '', $bits), $block, $second, $more);
    }

    /**
     * One whose numbers begin with the most significant byte.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     */
    public static function turned(string $bytes, string $name, int $at): self
    {
        $place = 0;
        $own = '';
        // Fields of the chunk and of its extension up to the subformat, whose first field is a number too
        foreach ([2, 2, 4, 4, 2, 2, 2, 2, 4, 4, 2, 2] as $length) {
            $own .= strrev(substr($bytes, $place, $length));
            $place += $length;
        }
        $format = self::parse(strlen($bytes) < $place ? substr($own, 0, strlen($bytes)) : $own.substr($bytes, $place), $name, $at);
        $pcm = $format->audio->pcm;

        return $pcm === null ? $format
            : new self(AudioFormat::pcm(new SampleFormat($pcm->kind, $pcm->bits, true), $format->audio->rate, $format->audio->layout),
                $format->blockBytes, $format->blockSamples, $format->bytesPerSecond);
    }

    /**
     * @param  AudioFormat  $head  rate, layout, bits and the whole chunk, as they are told
     *
     * @throws BytesMissing
     */
    private static function coded(int $tag, AudioFormat $head, int $block, int $second, string $more): self
    {
        [$bits, $rate, $layout, $bytes] = [$head->bitDepth, $head->rate, $head->layout, $head->config];
        $count = strlen($more) >= 2 ? (new Cursor($more))->u16le() : 0;
        $channels = $layout->count();
        $block = max(1, $block);
        $plain = fn (Codec $codec, int $frame = 0, string $variant = ''): AudioFormat => new AudioFormat($codec, $rate, $layout, null, '',
            $frame, $variant);
        // Whoever keeps it needs the whole header, which is all that tells how to decode it.
        $windows = fn (string $variant): AudioFormat => new AudioFormat(Codec::WindowsMedia, $rate, $layout, null, $bytes, 0, $variant);

        return match ($tag) {
            // A block begins with seven bytes a channel that hold two samples, the rest are four bits each.
            0x02 => new self(new AudioFormat(Codec::AdpcmMs, $rate, $layout, null, $bytes), $block,
                max(0, intdiv(($block - 7 * $channels) * 2, $channels) + 2), $second),
            // A block begins with four bytes a channel that hold one sample, the rest are four bits each.
            0x11 => new self(new AudioFormat(Codec::AdpcmIma, $rate, $layout, null, $bytes), $block,
                self::held($count, intdiv(($block - 4 * $channels) * 2, $channels) + 1), $second),
            // Two frames of 160 samples in 65 bytes
            0x31, 0x32 => new self(new AudioFormat(Codec::Gsm, $rate, $layout, null, $bytes), 65, 320, $second),
            0x50 => new self($plain(Codec::Mp2, 1152), $block, 0, $second),
            0x55 => new self($plain(Codec::Mp3, $rate >= 32000 ? 1152 : 576), $block, 0, $second),
            0xFF, 0x1610, 0x706D => new self(self::aac($more, $rate, $layout), $block, 0, $second),
            0x160, 0x161 => new self($windows('Windows Media Audio '.($tag - 0x15F)), $block, 0, $second),
            0x162 => new self($windows('Windows Media Audio Professional'), $block, 0, $second),
            0x163 => new self($windows('Windows Media Audio Lossless'), $block, 0, $second),
            0x0A => new self($windows('Windows Media Voice'), $block, 0, $second),
            0x2000 => new self($plain(Codec::Ac3, 1536), $block, 0, $second),
            0x2001 => new self($plain(Codec::Dts), $block, 0, $second),
            0xF1AC => new self($plain(Codec::Flac), $block, 0, $second),
            default => new self($plain(Codec::Unknown, 0, sprintf('form 0x%04X, %d-bit', $tag, $bits)), $block, 0, $second),
        };
    }

    /** Samples of a block: as announced, where its bytes can hold them. */
    private static function held(int $announced, int $most): int
    {
        return max(0, $announced > 0 ? min($announced, $most) : $most);
    }

    /**
     * The set-up bytes stand alone, or after twelve others (format 0x1610).
     *
     * @throws BytesMissing
     */
    private static function aac(string $more, int $rate, Layout $layout): AudioFormat
    {
        foreach ([$more, substr($more, 12)] as $config) {
            if (strlen($config) >= 2) {
                $audio = AudioSpecificConfig::parse($config)->audio();
                if ($audio->rate === $rate || $audio->rate === 2 * $rate) {
                    return $audio;
                }
            }
        }

        return new AudioFormat(Codec::Aac, $rate, $layout, null, '', 1024);
    }
}
