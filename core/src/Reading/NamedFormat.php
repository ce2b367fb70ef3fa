<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Media\Codec;

/** The format in which a source would be copied as it is, under the extension that it ought to have. */
final class NamedFormat
{
    /** Those of sound alone that are copied whole; where a container holds several codecs, by the codec. */
    private const SOUND = ['wav' => 'wav', 'aiff' => 'aiff', 'caf' => 'caf', 'au' => 'au', 'flac' => 'flac', 'mp3' => 'mp3',
        'wavpack' => 'wavpack',
        'adts' => 'adts', 'ac3' => 'ac3'];

    private const BY_CODEC = ['m4a' => ['aac' => 'aac', 'alac' => 'alac'], 'ogg' => ['opus' => 'opus', 'vorbis' => 'vorbis']];

    /** Null where it is of no kind that is copied whole. */
    public static function name(string $container, OpenedSource $source): ?string
    {
        $sound = $source->sound();
        if ($source->picture() !== null) {
            return VideoOutputs::named($container)?->name();
        }
        $codec = ($sound[0] ?? null)?->sound->codec ?? Codec::Unknown;

        return count($sound) !== 1 ? null : self::SOUND[$container] ?? self::BY_CODEC[$container][$codec->value] ?? null;
    }
}
