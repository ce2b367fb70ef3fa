<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Json\Fields;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Media\VideoFormat;

/** Tracks ↔ plain values, exact to the sample. */
final class StoredTrack
{
    /** @return array<string, mixed> */
    public static function write(Track $track): array
    {
        $picture = $track->picture;

        return [
            'number' => $track->number, 'kind' => $track->kind->value, 'language' => $track->language, 'name' => $track->name,
            'bytes' => $track->codedBytes,
            'coding' => $track->coding,
            'audio' => $track->sound === null ? null : $track->sound->toArray() + ['config' => bin2hex($track->sound->config)],
            'timeline' => $track->sound === null ? null : self::storedTimeline($track->timeline),
            'video' => $picture === null ? null : [
                'codec' => $picture->codec->value, 'label' => $picture->label, 'width' => $picture->width, 'height' => $picture->height,
                'per_second' => $picture->perSecond, 'start_offset' => $picture->startOffset, 'seconds' => $picture->seconds,
            ],
        ];
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::write()} gave */
    public static function read(Fields $track): Track
    {
        $number = $track->number('number');
        $language = $track->textOrNull('language');
        $audio = $track->optional('audio');
        $timeline = $track->optional('timeline');
        $video = $track->optional('video');

        return match (true) {
            $audio !== null && $timeline !== null => Track::sound(
                $number, AudioFormat::fromFields($audio)->withConfig($audio->bytes('config')), self::timeline($timeline),
                $track->number('bytes'), $language, $track->text('name'),
            ),
            $video !== null => Track::picture($number, self::video($video), $track->number('bytes'), $language, $track->text('name')),
            $track->text('kind') === TrackKind::Timecode->value => Track::timecode($number, $track->text('coding')),
            default => Track::text($number, $language, $track->text('name'), $track->text('coding')),
        };
    }

    /** @return array<string, mixed> */
    private static function storedTimeline(Timeline $timeline): array
    {
        return [
            'start_offset' => $timeline->startOffset, 'coded' => $timeline->coded,
            'segments' => array_map(fn (Segment $segment): array => ['from' => $segment->from, 'length' => $segment->length],
                $timeline->segments),
        ];
    }

    private static function timeline(Fields $timeline): Timeline
    {
        $segment = fn (Fields $one): Segment => $one->isNull('from') ? Segment::silence($one->number('length'))
            : Segment::media($one->number('from'), $one->number('length'));

        return Timeline::edited($timeline->number('start_offset'), array_map($segment, $timeline->each('segments')),
            $timeline->number('coded'));
    }

    private static function video(Fields $video): VideoFormat
    {
        $codec = Codec::tryFrom($video->text('codec')) ?? throw new \UnexpectedValueException('A picture is of no known codec.');

        return new VideoFormat(
            $codec, $video->text('label'), $video->number('width'), $video->number('height'), $video->float('per_second'),
            $video->float('start_offset'), $video->float('seconds'),
        );
    }
}
