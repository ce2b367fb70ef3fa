<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Video\SubtitleText;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoParts;
use Octavox\Core\Container\Video\VideoWriter;
use Octavox\Core\Container\Wave\WaveOutput;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** Videos as MP4 or as QuickTime movies. */
final class MovieVideo implements VideoOutputFormat
{
    private function __construct(private readonly bool $quickTime) {}

    public static function mp4(): self
    {
        return new self(false);
    }

    public static function quickTime(): self
    {
        return new self(true);
    }

    public function name(): string
    {
        return $this->quickTime ? 'mov' : 'mp4';
    }

    public function label(): string
    {
        return $this->quickTime ? 'Video, MOV' : 'Video, MP4';
    }

    public function extension(): string
    {
        return $this->name();
    }

    public function suits(): string
    {
        return $this->quickTime ? 'for cutting programs; where they take only uncompressed sound, choose PCM beside'
            : 'for phones, web pages and most players';
    }

    public function carriesPicture(Codec $codec): bool
    {
        return in_array($codec, $this->quickTime
            ? [Codec::H264, Codec::H265, Codec::Mpeg4Visual, Codec::Mpeg1Video, Codec::Mpeg2Video, Codec::Prores, Codec::MotionJpeg]
            : [Codec::H264, Codec::H265, Codec::Mpeg4Visual, Codec::Mpeg1Video, Codec::Mpeg2Video, Codec::Av1, Codec::Vp9], true);
    }

    public function doubts(AudioFormat $audio): ?string
    {
        return in_array($audio->codec, [Codec::Opus, Codec::Flac], true)
            ? sprintf('%s in %s is heard in browsers, but many players and phones stay silent; have AAC made of the sound for those.',
                CodecModules::of($audio->codec)->label(), $this->quickTime ? 'MOV' : 'MP4') : null;
    }

    public function carriesSound(AudioFormat $audio): bool
    {
        return SoundEntry::carries($audio, $this->quickTime);
    }

    public function holdsLayout(AudioFormat $audio): bool
    {
        return true;
    }

    public function carriesAuxiliary(string $coding): bool
    {
        return strlen($coding) === 4 || SubtitleText::isPlain($coding);
    }

    public function encodes(): OutputFormat
    {
        return $this->quickTime ? new WaveOutput : AacOutput::plain();
    }

    /**
     * ISO/IEC 14496-12 has its size (4), its time and difference (8 each where it differs from the one before) of each sample, an offset
     * (4) for each chunk.
     */
    public function indexBytes(): array
    {
        return [1500, 16, 4, 8];
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, VideoParts $parts): VideoWriter
    {
        return new MovieVideoWriter($sink, $this->quickTime, $parts);
    }
}
