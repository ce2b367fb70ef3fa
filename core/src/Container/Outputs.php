<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Container\Ac3\Ac3Output;
use Octavox\Core\Container\Ac3\Eac3Output;
use Octavox\Core\Container\Adts\AdtsOutput;
use Octavox\Core\Container\Aiff\AiffOutput;
use Octavox\Core\Container\Au\AuOutput;
use Octavox\Core\Container\CoreAudio\CoreAudioOutput;
use Octavox\Core\Container\Dts\DtsOutput;
use Octavox\Core\Container\Flac\FlacOutput;
use Octavox\Core\Container\IsoMedia\AacOutput;
use Octavox\Core\Container\IsoMedia\AlacOutput;
use Octavox\Core\Container\Matroska\MatroskaOutput;
use Octavox\Core\Container\MpegAudio\Mp2Output;
use Octavox\Core\Container\MpegAudio\Mp3Output;
use Octavox\Core\Container\Ogg\OpusOutput;
use Octavox\Core\Container\Ogg\VorbisOutput;
use Octavox\Core\Container\Raw\RawOutput;
use Octavox\Core\Container\Raw\TelephoneOutput;
use Octavox\Core\Container\Wave\BlockOutput;
use Octavox\Core\Container\Wave\LawOutput;
use Octavox\Core\Container\Wave\WaveOutput;
use Octavox\Core\Container\WavPack\WavPackOutput;

/** The registry: every kind of file that can be made. */
final class Outputs
{
    /** @return non-empty-list<OutputFormat> */
    public static function all(): array
    {
        return [
            new WaveOutput, LawOutput::float(), new AiffOutput, new CoreAudioOutput, new AuOutput, new FlacOutput, new AlacOutput,
            new WavPackOutput, new Mp3Output, AacOutput::plain(), AacOutput::ringTone(), new AdtsOutput, new OpusOutput, new VorbisOutput,
            new Mp2Output, new Ac3Output, new Eac3Output, new DtsOutput, new MatroskaOutput,
            LawOutput::aLaw(), LawOutput::muLaw(), BlockOutput::ima(), BlockOutput::microsoft(), BlockOutput::gsm(),
            new TelephoneOutput, new RawOutput,
        ];
    }

    /** Other ways in which people write the names of formats: extensions of their files, and what they are called elsewhere. */
    private const SPELLINGS = ['ogg' => 'vorbis', 'oga' => 'vorbis', 'm4a' => 'aac', 'aif' => 'aiff', 'aifc' => 'aiff', 'wave' => 'wav',
        'wv' => 'wavpack', 'snd' => 'au', 'mpga' => 'mp3', 'mpeg' => 'mp3', 'mka' => 'mka', 'pcm' => 'raw', 'm4v' => 'mp4',
        'qt' => 'mov', 'matroska' => 'mkv'];

    /** The name of a format however it is written: in capitals, with the dot of an extension, by a usual extension. */
    public static function spelled(string $written): string
    {
        $name = ltrim(strtolower(trim($written)), '.');

        return self::named($name) === null ? self::SPELLINGS[$name] ?? $name : $name;
    }

    public static function named(string $name): ?OutputFormat
    {
        foreach (self::all() as $format) {
            if ($format->name() === $name) {
                return $format;
            }
        }

        return null;
    }
}
