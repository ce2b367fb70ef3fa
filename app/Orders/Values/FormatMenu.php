<?php

declare(strict_types=1);

namespace App\Orders\Values;

use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;

/** The formats as the order sheet offers them, in groups by what they are for. */
final class FormatMenu
{
    private const TELEPHONE = ['alaw', 'ulaw', 'ima', 'msadpcm', 'gsm', 'vox'];

    /** @return array<string, list<OutputFormat|VideoOutputFormat>> by the group's name */
    public static function groups(): array
    {
        $groups = ['Sound, uncompressed' => [], 'Sound, compressed without loss' => [], 'Sound, small' => [], 'Sound, for telephones' => [],
            'Sound, only copied untouched' => [], 'Video, the picture untouched' => VideoOutputs::all()];
        foreach (Outputs::all() as $format) {
            $groups[self::group($format)][] = $format;
        }

        return $groups;
    }

    private static function group(OutputFormat $format): string
    {
        $capabilities = $format->capabilities();

        return match (true) {
            in_array($format->name(), self::TELEPHONE, true) => 'Sound, for telephones',
            ! $capabilities->makes => 'Sound, only copied untouched',
            $capabilities->fidelity === Fidelity::Uncompressed => 'Sound, uncompressed',
            $capabilities->fidelity === Fidelity::Lossless => 'Sound, compressed without loss',
            default => 'Sound, small',
        };
    }
}
