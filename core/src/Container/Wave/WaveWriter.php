<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\Adpcm\WaveBlocks;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Container\StretchWriter;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\RiffInfo;
use Octavox\Core\Tag\Tags;

/**
 * Writes WAV; the 64-bit form RF64 (EBU Tech 3306) where it is longer than 4 GiB. The extensible header is used for more than
 * two channels or 16 bits, as Multiple Channel Audio Data and WAVE Files asks.
 */
final class WaveWriter implements StretchWriter
{
    private const MOST_SHORT = 0xFFFFFFFF;

    private const SUBFORMAT = "\x00\x00\x00\x00\x10\x00\x80\x00\x00\xAA\x00\x38\x9B\x71";

    private readonly bool $long;

    private readonly string $trailer;

    private readonly string $broadcast;

    private readonly string $header;

    private int $written = 0;

    private int $samples;

    /**
     * @param  int  $samples that are expected, for a header that is right from the start
     *
     * @throws Failure
     */
    public function __construct(private readonly ByteSink $sink, private readonly AudioFormat $audio, Tags $tags, int $samples)
    {
        if ($audio->pcm === null && $audio->config === '') {
            throw CodecNotDecodable::named(CodecModules::describe($audio));
        }
        $this->samples = $samples;
        $this->broadcast = BroadcastExtension::write($tags, $audio);
        $this->trailer = self::trailer($audio, $tags);
        $this->long = self::bytes($audio, $samples, strlen($this->trailer) + strlen($this->broadcast)) - 8 > self::MOST_SHORT;
        $this->header = $this->header(self::dataBytes($audio, $samples));
        $this->sink->write($this->header);
    }

    /** Size of the file for so many samples, exact. */
    public static function predict(AudioFormat $audio, int $samples, Tags $tags): int
    {
        return self::bytes($audio, $samples, strlen(self::trailer($audio, $tags)) + strlen(BroadcastExtension::write($tags, $audio)));
    }

    /** What stands after the samples: tags and marks. */
    private static function trailer(AudioFormat $audio, Tags $tags): string
    {
        $info = RiffInfo::write($tags);

        // The list has places for a few fields only; all of them stand in a tag beside it.
        $tag = Id3v2::write($tags->withChapters([]));

        return ($info === '' ? '' : 'LIST'.pack('V', strlen($info)).$info).($tag === '' ? ''
            : 'id3 '.pack('V', strlen($tag)).$tag.(strlen($tag) % 2 === 1 ? "\0" : '')).CuePoints::write($tags->chapters, $audio->rate);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function write(Packet $packet): void
    {
        $this->sink->write($packet->data);
        $this->written += strlen($packet->data);
    }

    /**
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws Failure
     */
    public function copy(Stretch $packets): void
    {
        $this->sink->copy($packets);
        $this->written += $packets->length;
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function finish(int $samples, AudioFormat $audio): void
    {
        if ($this->written % 2 === 1) {
            $this->sink->write("\0");
        }
        $this->sink->write($this->trailer);
        $this->samples = $samples;
        $header = $this->header($this->written);
        if ($header !== $this->header && strlen($header) === strlen($this->header)) {
            $this->sink->replace(0, $header);
        }
    }

    private static function bytes(AudioFormat $audio, int $samples, int $trailer): int
    {
        $data = self::dataBytes($audio, $samples);
        $head = 12 + 8 + strlen(self::format($audio)) + (self::hasFact($audio) ? 12 : 0) + 8;
        $bytes = $head + $data + ($data & 1) + $trailer;

        return $bytes - 8 > self::MOST_SHORT ? $bytes + 36 : $bytes;
    }

    /** Of all samples, in whole blocks where the codec has such. */
    private static function dataBytes(AudioFormat $audio, int $samples): int
    {
        if ($audio->pcm !== null) {
            return $samples * $audio->frameBytes();
        }
        $shape = WaveBlocks::of($audio);

        return intdiv($samples + $shape->samples - 1, $shape->samples) * $shape->bytes;
    }

    private function header(int $data): string
    {
        $format = self::format($this->audio);
        $frames = $this->audio->pcm === null ? $this->samples : intdiv($data, $this->audio->frameBytes());
        $fact = self::hasFact($this->audio) ? 'fact'.pack('VV', 4, min($frames, self::MOST_SHORT)) : '';
        $tail = $this->broadcast.'fmt '.pack('V', strlen($format)).$format.$fact.'data';
        $riff = 4 + strlen($tail) + 4 + $data + ($data & 1) + strlen($this->trailer) + ($this->long ? 36 : 0);
        if ($this->long) {
            return 'RF64'.pack('V', self::MOST_SHORT).'WAVE'.'ds64'.pack('VPPPV', 28, $riff, $data, $frames, 0).$tail.pack('V',
                self::MOST_SHORT);
        }

        return 'RIFF'.pack('V', $riff).'WAVE'.$tail.pack('V', $data);
    }

    private static function hasFact(AudioFormat $audio): bool
    {
        return $audio->pcm === null || ! in_array($audio->pcm->kind, [SampleKind::Signed, SampleKind::Unsigned], true);
    }

    private static function format(AudioFormat $audio): string
    {
        $pcm = $audio->pcm;
        if ($pcm === null) {
            return $audio->config;
        }
        $tag = match ($pcm->kind) {
            SampleKind::Signed, SampleKind::Unsigned => 1,
            SampleKind::Float => 3,
            SampleKind::ALaw => 6,
            SampleKind::MuLaw => 7,
        };
        $common = pack('vVVvv', $audio->channels(), $audio->rate, $audio->rate * $audio->frameBytes(), $audio->frameBytes(), $pcm->bits);
        if ($audio->channels() > 2 || ($tag === 1 && $pcm->bits > 16)) {
            return pack('v', 0xFFFE).$common.pack('vvVv', 22, $pcm->bits, $audio->layout->mask(), $tag).self::SUBFORMAT;
        }

        return pack('v', $tag).$common.($tag === 1 ? '' : pack('v', 0));
    }
}
