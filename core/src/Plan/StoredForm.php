<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Json\Fields;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/** Forms of sound ↔ the plain values of a plan. */
final class StoredForm
{
    /** @return array<string, mixed> */
    public static function fields(AudioFormat $audio): array
    {
        return [
            'codec' => $audio->codec->value,
            'pcm' => $audio->pcm === null ? null : ['kind' => $audio->pcm->kind->value, 'bits' => $audio->pcm->bits, 'big_endian' => $audio->pcm->bigEndian],
            'rate' => $audio->rate,
            'channels' => array_map(fn (Channel $channel): int => $channel->value, $audio->layout->channels),
            'frame_length' => $audio->frameLength,
            'width' => $audio->bitDepth,
            'variant' => $audio->variant,
        ];
    }

    /** @throws \UnexpectedValueException where it is not that */
    public static function read(Fields $fields): AudioFormat
    {
        $channels = array_map(fn (mixed $value): Channel => Channel::tryFrom(is_int($value) ? $value : -1) ?? throw new \UnexpectedValueException('A plan names a channel that does not exist.'), $fields->list('channels'));
        $first = array_shift($channels) ?? throw new \UnexpectedValueException('A plan names no channel.');
        $pcm = $fields->optional('pcm');

        return new AudioFormat(
            Codec::from($fields->text('codec')),
            $fields->number('rate'),
            Layout::of($first, ...$channels),
            $pcm === null ? null : new SampleFormat(SampleKind::from($pcm->text('kind')), $pcm->number('bits'), $pcm->bool('big_endian')),
            '',
            $fields->number('frame_length'),
            $fields->text('variant'),
            $fields->number('width'),
        );
    }
}
