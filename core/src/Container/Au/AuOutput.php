<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Au;

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
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\TagRoom;
use Octavox\Core\Tag\Tags;

/** AU with uncompressed samples. */
final class AuOutput extends PcmOutput
{
    public function name(): string
    {
        return 'au';
    }

    public function label(): string
    {
        return 'AU';
    }

    public function extension(): string
    {
        return 'au';
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return strlen(self::header($audio, 0, $tags)) + $samples * $audio->frameBytes();
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new Headed($sink, self::header($audio, $samples, $tags));
    }

    protected function stored(SampleFormat $pcm): SampleFormat
    {
        return $pcm->bits > 8 ? new SampleFormat($pcm->kind, $pcm->bits, true)
            : ($pcm->kind === SampleKind::Unsigned ? SampleFormat::signed(8) : $pcm);
    }

    protected function holdsLayout(): bool
    {
        return false;
    }

    protected function tagRoom(): TagRoom
    {
        return TagRoom::only(TagField::Title);
    }

    protected function suits(): string
    {
        return 'for old telephone and laboratory programs';
    }

    /** The text after the numbers has at least four bytes, whole eights together with them. */
    private static function header(AudioFormat $audio, int $samples, Tags $tags): string
    {
        $text = mb_strcut($tags->get(TagField::Title) ?? '', 0, 1000, 'UTF-8');
        $text = str_pad($text, 8 * intdiv(strlen($text) + 8, 8), "\0");
        $length = $samples * $audio->frameBytes();
        $encoding = 0;
        foreach (AuFormat::ENCODINGS as $number => [$kind, $bits]) {
            $encoding = $audio->pcm?->kind === $kind && $audio->bits() === $bits ? $number : $encoding;
        }

        return '.snd'.pack('N5', AuFormat::HEADER + strlen($text), $length >= AuFormat::UNKNOWN_LENGTH ? AuFormat::UNKNOWN_LENGTH : $length,
            $encoding, $audio->rate, $audio->channels()).$text;
    }
}
