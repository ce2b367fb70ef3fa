<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Au;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\PcmFile;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** AU: audio(4) of SunOS 4.1 and the header <audio/au.h>; six numbers, most significant byte first, then text, then samples. */
final class AuFormat implements Format
{
    /** The number of each sample format in the header. */
    public const ENCODINGS = [1 => [SampleKind::MuLaw, 8], 2 => [SampleKind::Signed, 8], 3 => [SampleKind::Signed, 16],
        4 => [SampleKind::Signed, 24], 5 => [SampleKind::Signed, 32], 6 => [SampleKind::Float, 32], 7 => [SampleKind::Float, 64],
        27 => [SampleKind::ALaw, 8]];

    public const HEADER = 24;

    /** A length that is not known. */
    public const UNKNOWN_LENGTH = 0xFFFFFFFF;

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= self::HEADER && $bytes->read(0, 4) === '.snd';
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function open(ByteSource $bytes): Demuxer
    {
        $cursor = new Cursor($bytes->read(4, 20), $bytes->name(), 4);
        $at = $cursor->u32be();
        $length = $cursor->u32be();
        $encoding = $cursor->u32be();
        $rate = $cursor->u32be();
        $channels = $cursor->u32be();
        if ($at < self::HEADER || $at > $bytes->size() || $rate < 1 || $rate > 10_000_000 || $channels < 1
            || $channels > Layout::MOST_CHANNELS) {
            throw BrokenStructure::at($bytes->name(), 4,
                sprintf('its header names %s channels at %s Hz', number_format($channels), number_format($rate)));
        }
        $left = $bytes->size() - $at;
        $diagnostics = $length !== self::UNKNOWN_LENGTH && $length > $left
            ? [Diagnostic::cutShort($length, $left, 'bytes of sound')] : [];
        $length = $length === 0 ? $left : min($left, $length);
        $text = trim($bytes->read(self::HEADER, min(4096, $at - self::HEADER)), "\0");
        $tags = $text === '' ? Tags::none() : Tags::none()->with(TagField::Title, $text);
        $known = self::ENCODINGS[$encoding] ?? null;
        $audio = $known === null
            ? new AudioFormat(Codec::Unknown, $rate, Layout::undeclared($channels), null, '', 0, 'AU form '.$encoding)
            : AudioFormat::pcm(new SampleFormat($known[0], $known[1], $known[1] > 8), $rate, Layout::undeclared($channels));

        return new PcmFile('au', $bytes,
            Track::sound(1, $audio, Timeline::plain($audio->frameBytes() === 0 ? 0 : intdiv($length, $audio->frameBytes())), $length), $at,
            $tags, $diagnostics);
    }
}
