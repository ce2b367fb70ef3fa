<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Aiff;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Headed;
use Octavox\Core\Container\PcmOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** AIFF; AIFC for floating point, A-law, µ-law and more than two channels. */
final class AiffOutput extends PcmOutput
{
    /** The version of AIFF-C that `FVER` names. */
    private const VERSION = 0xA2805140;

    public function name(): string
    {
        return 'aiff';
    }

    public function label(): string
    {
        return 'AIFF';
    }

    public function extension(): string
    {
        return 'aiff';
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        $bytes = $samples * $audio->frameBytes();

        return strlen(self::header($audio, $samples, $tags)) + $bytes + ($bytes & 1) + strlen(self::trailer($tags));
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new Headed($sink, self::header($audio, $samples, $tags),
            ($samples * $audio->frameBytes() % 2 === 1 ? "\0" : '').self::trailer($tags));
    }

    protected function stored(SampleFormat $pcm): SampleFormat
    {
        return $pcm->bits > 8 ? new SampleFormat($pcm->kind, $pcm->bits, true)
            : ($pcm->kind === SampleKind::Unsigned ? SampleFormat::signed(8) : $pcm);
    }

    protected function suits(): string
    {
        return 'uncompressed, for programs that ask for it';
    }

    private static function header(AudioFormat $audio, int $samples, Tags $tags): string
    {
        $type = match ($audio->pcm?->kind) {
            SampleKind::Float => $audio->bits() === 64 ? 'fl64' : 'fl32',
            SampleKind::ALaw => 'alaw',
            SampleKind::MuLaw => 'ulaw',
            default => $audio->channels() > 2 ? 'NONE' : null,
        };
        $data = $samples * $audio->frameBytes();
        $common = pack('nNn', $audio->channels(), min($samples, 0xFFFFFFFF), $audio->bits()).self::extended($audio->rate);
        $body = $type === null ? 'AIFF' : 'AIFC'.self::chunk('FVER', pack('N', self::VERSION));
        // The name of the compression is a Pascal string, with its length before and padded to an even number of bytes.
        $body .= self::chunk('COMM', $common.($type === null ? '' : $type."\0\0"));
        if ($audio->channels() > 2 && $audio->layout->mask() !== 0) {
            $body .= self::chunk('CHAN', pack('N3', ChannelLayout::BY_BITMAP, $audio->layout->mask(), 0));
        }
        foreach ([[TagField::Title, 'NAME'], [TagField::Artist, 'AUTH'], [TagField::Copyright, '(c) '],
            [TagField::Comment, 'ANNO']] as [$field, $name]) {
            $body .= $tags->get($field) === null ? '' : self::chunk($name, (string) $tags->get($field));
        }
        $body .= 'SSND'.pack('N3', min(0xFFFFFFFF, $data + 8), 0, 0);

        return 'FORM'.pack('N', min(0xFFFFFFFF, strlen($body) + $data + ($data & 1) + strlen(self::trailer($tags)))).$body;
    }

    /** What the text chunks have no place for: the rest of the tags and the cover. */
    private static function trailer(Tags $tags): string
    {
        $tag = Id3v2::write($tags);

        return $tag === '' ? '' : self::chunk('ID3 ', $tag);
    }

    private static function chunk(string $name, string $body): string
    {
        return $name.pack('N', strlen($body)).$body.(strlen($body) % 2 === 1 ? "\0" : '');
    }

    /** A whole number as an 80-bit number of IEEE 754: the highest bit of the mantissa is set. */
    private static function extended(int $value): string
    {
        $exponent = 0;
        while ($value >> $exponent + 1 > 0) {
            $exponent++;
        }

        return pack('nJ', 16383 + $exponent, $value << 63 - $exponent);
    }

    protected function holdsChapters(): bool
    {
        return true;
    }
}
