<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Codec\Aac\AacModule;
use Octavox\Core\Codec\Ac3\Ac3Module;
use Octavox\Core\Codec\Ac3\Eac3Module;
use Octavox\Core\Codec\Adpcm\DialogicModule;
use Octavox\Core\Codec\Adpcm\WaveBlockModule;
use Octavox\Core\Codec\Alac\AlacModule;
use Octavox\Core\Codec\Amr\AmrModule;
use Octavox\Core\Codec\Dts\DtsModule;
use Octavox\Core\Codec\Flac\FlacModule;
use Octavox\Core\Codec\Mp3\Mp3Module;
use Octavox\Core\Codec\Opus\OpusModule;
use Octavox\Core\Codec\Pcm\PcmModule;
use Octavox\Core\Codec\Speex\SpeexModule;
use Octavox\Core\Codec\Vorbis\VorbisModule;
use Octavox\Core\Codec\WavPack\WavPackModule;
use Octavox\Core\Media\Codec;

/** The registry: which module knows which codec. */
final class CodecModules
{
    /** @var array<string, class-string<CodecModule>> */
    private const BY_CODEC = [
        'pcm' => PcmModule::class,
        'aac' => AacModule::class,
        'mp3' => Mp3Module::class,
        'mp2' => Mp3Module::class,
        'mp1' => Mp3Module::class,
        'alac' => AlacModule::class,
        'flac' => FlacModule::class,
        'opus' => OpusModule::class,
        'vorbis' => VorbisModule::class,
        'ac3' => Ac3Module::class,
        'eac3' => Eac3Module::class,
        'dts' => DtsModule::class,
        'ima-adpcm' => WaveBlockModule::class,
        'ms-adpcm' => WaveBlockModule::class,
        'gsm' => WaveBlockModule::class,
        'amr-nb' => AmrModule::class,
        'amr-wb' => AmrModule::class,
        'wavpack' => WavPackModule::class,
        'speex' => SpeexModule::class,
        'telephone-adpcm' => DialogicModule::class,
    ];

    /** @var array<string, CodecModule> */
    private static array $made = [];

    /** That of a codec; one that is only named can do nothing. */
    public static function of(Codec $codec): CodecModule
    {
        $class = self::BY_CODEC[$codec->value] ?? NamedModule::class;

        return self::$made[$class] ??= new $class;
    }
}
