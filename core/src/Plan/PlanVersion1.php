<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Json\Fields;
use Octavox\Core\Media\SourceKind;

/** Brings plans of the first version up: flat, the first sound in the root and the others in `more`, steps in words. */
final class PlanVersion1
{
    /**
     * @return array<string, mixed> a document of version 2
     *
     * @throws \UnexpectedValueException where it is no plan of version 1
     */
    public static function upgraded(Fields $old): array
    {
        $start = $old->number('moment');
        $rate = max(1, $old->number('rate'));
        $isSilent = ! $old->isNull('picture') && $old->number('track') === 0;
        $seconds = $start / $rate;
        $more = array_map(
            fn (Fields $sound): array => self::sound($sound, (int) round($seconds * max(1, $sound->number('rate'))), null),
            $old->isNull('more') ? [] : $old->each('more'),
        );

        return [
            'version' => 2,
            'source' => [
                'kind' => SourceKind::File->value, 'path' => $old->text('source'), 'bytes' => $old->number('source_bytes'),
                'stated' => $old->textOrNull('stated'), 'title' => null,
            ],
            'target' => [
                'container' => $old->text('format'), 'folder' => $old->text('folder'), 'name' => $old->text('name'),
                'if_exists' => $old->text('exists'), 'predicted_bytes' => $old->number('predicted_bytes'),
            ],
            'picture' => $old->isNull('picture') ? null
                : ['track' => $old->number('picture'), 'milliseconds' => $isSilent ? $old->number('samples') : 0],
            'sounds' => $isSilent ? [] : [self::sound($old, $start, $old->numberOrNull('lasts')), ...$more],
            'auxiliaries' => $old->isNull('companions') ? [] : $old->numbers('companions'),
            'tags' => $old->isNull('tags') ? [] : $old->map('tags'),
            'steps' => [],
            'warnings' => [],
        ];
    }

    /**
     * @return array<string, mixed>
     *
     * @throws \UnexpectedValueException
     */
    private static function sound(Fields $old, int $start, ?int $duration): array
    {
        return [
            'track' => $old->number('track'),
            'presentation_start' => $start,
            'duration' => $duration,
            'action' => $old->text('action'),
            'audio' => [
                'codec' => $old->text('codec'), 'pcm' => $old->optional('pcm')?->all(), 'rate' => $old->number('rate'),
                'channels' => $old->list('channels'),
                'frame_length' => $old->number('frame_length'), 'bit_depth' => $old->number('width'), 'variant' => $old->text('variant'),
            ],
            'kbps' => $old->number('kbps'),
            'quality' => $old->numberOrNull('quality'),
            'samples' => $old->number('samples'),
            'dither' => $old->bool('dither'),
            'shape' => $old->optional('shape')?->all() ?? (new Shape)->toArray(),
        ];
    }
}
