<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Container\Ac3\Ac3Format;
use Octavox\Core\Container\Adts\AdtsFormat;
use Octavox\Core\Container\Aiff\AiffFormat;
use Octavox\Core\Container\Amr\AmrFormat;
use Octavox\Core\Container\Ape\ApeFormat;
use Octavox\Core\Container\Asf\AsfFormat;
use Octavox\Core\Container\Au\AuFormat;
use Octavox\Core\Container\Avi\AviFormat;
use Octavox\Core\Container\CoreAudio\CoreAudioFormat;
use Octavox\Core\Container\Cue\CueFormat;
use Octavox\Core\Container\Dsd\DsdFormat;
use Octavox\Core\Container\Dts\DtsFormat;
use Octavox\Core\Container\Flac\FlacFormat;
use Octavox\Core\Container\Flv\FlvFormat;
use Octavox\Core\Container\IsoMedia\IsoMediaFormat;
use Octavox\Core\Container\Latm\LatmFormat;
use Octavox\Core\Container\Matroska\MatroskaFormat;
use Octavox\Core\Container\MpegAudio\MpegAudioFormat;
use Octavox\Core\Container\MpegVideo\MpegVideoFormat;
use Octavox\Core\Container\Musepack\MusepackFormat;
use Octavox\Core\Container\Ogg\OggFormat;
use Octavox\Core\Container\ProgramStream\ProgramFormat;
use Octavox\Core\Container\TransportStream\TransportFormat;
use Octavox\Core\Container\Tta\TtaFormat;
use Octavox\Core\Container\W64\W64Format;
use Octavox\Core\Container\Wave\WaveFormat;
use Octavox\Core\Container\WavPack\WavPackFormat;
use Octavox\Core\Failure;

/** The registry: every format that can be read, in the order in which they are tried. */
final class Containers
{
    /**
     * Those with a signature of their own come first; those that only look at whether frames or packets follow each other, last.
     *
     * @return list<Format>
     */
    public static function all(): array
    {
        return [
            new IsoMediaFormat, new MatroskaFormat, new AviFormat, new FlvFormat, new AsfFormat, new WaveFormat, new W64Format,
            new AiffFormat, new CoreAudioFormat, new AuFormat, new FlacFormat, new OggFormat, new WavPackFormat,
            new AmrFormat, new CueFormat, new ApeFormat, new TtaFormat, new MusepackFormat, new DsdFormat,
            new ProgramFormat, new MpegVideoFormat, new TransportFormat, new Ac3Format, new DtsFormat, new LatmFormat, new AdtsFormat,
            new MpegAudioFormat,
        ];
    }

    /** @throws Failure */
    public static function openFile(string $path, ?StatedAs $stated = null): Demuxer
    {
        return self::open(FileBytes::open($path), $stated);
    }

    /**
     * @param  ?StatedAs  $stated  as what somebody wants it opened
     *
     * @throws Failure
     */
    public static function open(ByteSource $bytes, ?StatedAs $stated = null): Demuxer
    {
        if ($bytes->size() === 0) {
            throw EmptyFile::at($bytes->name());
        }
        if ($stated !== null) {
            return $stated->open($bytes);
        }
        foreach (self::all() as $format) {
            if ($format->recognises($bytes)) {
                return $format->open($bytes);
            }
        }
        $head = $bytes->read(0, min(4096, $bytes->size()));

        throw match (true) {
            trim($head, "\0") === '' => UnknownFormat::zeros($bytes->name()),
            mb_check_encoding(strlen($head) < 4096 ? $head : substr($head, 0, -4), 'UTF-8')
                && preg_match('/[\x00-\x08\x0E-\x1F]/', $head) !== 1 => UnknownFormat::text($bytes->name()),
            default => UnknownFormat::other($bytes->name()),
        };
    }
}
