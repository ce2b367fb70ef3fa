<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Json\Fields;
use Octavox\Core\Media\AudioFormat;

/** Brings readings of the first version up, which were what the command line printed then. */
final class ReadingVersion1
{
    /**
     * @return array<string, mixed> a document of version 2
     *
     * @throws \UnexpectedValueException where it is no reading of version 1
     */
    public static function upgraded(Fields $old): array
    {
        return [
            'version' => 2,
            'tracks' => array_map(self::track(...), $old->each('tracks')),
            'cover' => $old->optional('cover')?->text('type') ?? '',
            'chapters' => $old->isNull('chapters') ? [] : $old->list('chapters'),
        ] + $old->all();
    }

    /**
     * @return array<string, mixed>
     *
     * @throws \UnexpectedValueException
     */
    private static function track(Fields $track): array
    {
        $exact = $track->optional('exact');
        $kind = $track->text('kind');

        return [
            'number' => $track->number('number'), 'kind' => $kind, 'language' => $track->textOrNull('language'),
            'name' => $exact?->text('name') ?? '',
            'bytes' => $track->number('bytes'), 'coding' => in_array($kind, ['sound', 'picture'], true) || $track->text('codec') === 'text'
                ? '' : $track->text('codec'),
            'audio' => $exact === null ? null : self::audio($track, $exact),
            'timeline' => $exact === null ? null
                : ['start_offset' => $exact->number('starts'), 'coded' => $exact->number('coded'), 'segments' => $exact->list('segments')],
            'video' => $kind !== 'picture' ? null : [
                'codec' => $track->text('codec'), 'label' => $track->text('form'), 'width' => $track->number('width'),
                'height' => $track->number('height'),
                'per_second' => $track->float('rate'), 'start_offset' => $track->float('starts'), 'seconds' => $track->float('seconds'),
            ],
        ];
    }

    /**
     * The exact name of a codec stood in the words for it only.
     *
     * @return array<string, mixed>
     *
     * @throws \UnexpectedValueException
     */
    private static function audio(Fields $track, Fields $exact): array
    {
        $audio = [
            'codec' => $track->text('codec'), 'pcm' => $exact->optional('pcm')?->all(), 'rate' => $track->number('rate'),
            'channels' => $exact->list('speakers'),
            'frame_length' => $exact->number('frame_length'), 'bit_depth' => $exact->number('width'), 'variant' => '',
            'config' => $exact->text('config'),
        ];
        $label = $track->text('form');
        $isPlain = CodecModules::describe(AudioFormat::fromFields(new Fields($audio))) === $label;

        return $isPlain ? $audio : ['variant' => $label] + $audio;
    }
}
