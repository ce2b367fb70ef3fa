<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

/** What files of each container are usually called. */
final class UsualExtensions
{
    private const OF = [
        'mp4' => ['mp4', 'm4v', 'm4a', 'mov', 'f4v', 'm4b', 'm4r'],
        'm4a' => ['m4a', 'm4b', 'm4r', 'mp4', 'aac'],
        'mov' => ['mov', 'qt', 'mp4', 'm4a'],
        '3gp' => ['3gp', '3g2', '3gpp', 'mp4'],
        'wav' => ['wav', 'wave', 'bwf', 'rf64'],
        'w64' => ['w64'],
        'aiff' => ['aif', 'aiff', 'aifc'],
        'caf' => ['caf'],
        'au' => ['au', 'snd'],
        'flac' => ['flac', 'fla'],
        'ogg' => ['ogg', 'oga', 'ogv', 'ogx', 'opus', 'spx'],
        'wavpack' => ['wv'],
        'adts' => ['aac', 'adts', 'adt'],
        'latm' => ['aac', 'latm', 'loas'],
        'ac3' => ['ac3'],
        'eac3' => ['eac3', 'ec3', 'ac3'],
        'dts' => ['dts'],
        'cue' => ['cue'],
        'ape' => ['ape', 'mac'],
        'tta' => ['tta'],
        'musepack' => ['mpc', 'mp+', 'mpp'],
        'dsd' => ['dsf', 'dff'],
        'amr' => ['amr', 'awb', '3ga'],
        'mkv' => ['mkv', 'mka', 'mks', 'mk3d'],
        'webm' => ['webm', 'weba'],
        'avi' => ['avi', 'divx'],
        'mpeg-ps' => ['mpg', 'mpeg', 'vob', 'm2p', 'ps', 'dat'],
        'dvd-video' => ['iso', 'img', 'udf', 'ifo'],
        'mpeg-ts' => ['ts', 'm2ts', 'mts', 'm2t', 'trp', 'tp'],
        'flv' => ['flv', 'f4v'],
        'asf' => ['asf', 'wma', 'wmv'],
        'mp3' => ['mp3', 'mpga'],
        'mp2' => ['mp2', 'mpa', 'mp3', 'm2a'],
        'mp1' => ['mp1', 'mpa'],
    ];

    /** Whether a file of a container may be called so; of one that nobody has named, anything. */
    public static function fit(string $extension, string $container): bool
    {
        return ! isset(self::OF[$container]) || in_array(strtolower($extension), self::OF[$container], true);
    }

    /** Whether recordings are usually called so. */
    public static function isAny(string $extension): bool
    {
        return in_array(strtolower($extension), array_merge(...array_values(self::OF)), true);
    }
}
