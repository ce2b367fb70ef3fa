<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Container\Aiff\AiffOutput;
use Octavox\Core\Container\Au\AuOutput;
use Octavox\Core\Container\CoreAudio\CoreAudioOutput;
use Octavox\Core\Container\Flac\FlacOutput;
use Octavox\Core\Container\MpegAudio\Mp3Output;
use Octavox\Core\Container\Wave\BlockOutput;
use Octavox\Core\Container\Wave\LawOutput;
use Octavox\Core\Container\Wave\WaveOutput;

/** The registry: every kind of file that can be made. */
final class Outputs
{
    /** @return non-empty-list<OutputFormat> */
    public static function all(): array
    {
        return [
            new WaveOutput, LawOutput::float(), new AiffOutput, new CoreAudioOutput, new AuOutput, new FlacOutput, new Mp3Output,
            LawOutput::aLaw(), LawOutput::muLaw(), BlockOutput::ima(), BlockOutput::microsoft(), BlockOutput::gsm(),
        ];
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
