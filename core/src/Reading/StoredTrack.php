<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Json\Fields;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\VideoFormat;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/** Tracks ↔ plain values, exact to the sample. */
final class StoredTrack
{
    /** @return array<string, mixed> what the fields for people leave out */
    public static function exact(Track $track, AudioFormat $audio): array
    {
        return [
            'speakers' => array_map(fn (Channel $channel): int => $channel->value, $audio->layout->channels),
            'pcm' => $audio->pcm === null ? null : ['kind' => $audio->pcm->kind->value, 'bits' => $audio->pcm->bits, 'big_endian' => $audio->pcm->bigEndian],
            'config' => bin2hex($audio->config),
            'frame_length' => $audio->frameLength,
            'width' => $audio->bitDepth,
            'name' => $track->name,
            'starts' => $track->timeline->startOffset,
            'coded' => $track->timeline->coded,
            'segments' => array_map(fn (Segment $segment): array => ['from' => $segment->from, 'length' => $segment->length], $track->timeline->segments),
        ];
    }

    /** @throws \UnexpectedValueException */
    public static function read(Fields $track): Track
    {
        $number = $track->number('number');
        $language = $track->textOrNull('language');
        $exact = $track->optional('exact');

        return match (true) {
            $exact !== null => Track::sound($number, self::audio($track, $exact), self::timeline($exact), $track->number('bytes'), $language, $exact->text('name')),
            $track->text('kind') === 'picture' => Track::picture($number, new VideoFormat(Codec::from($track->text('codec')), $track->text('form'), $track->number('width'), $track->number('height'), $track->float('rate'), $track->float('starts'), $track->float('seconds')), $track->number('bytes'), $language),
            $track->text('kind') === 'timecode' => Track::timecode($number, $track->text('codec')),
            default => Track::text($number, $language, '', $track->text('codec') === 'text' ? '' : $track->text('codec')),
        };
    }

    private static function audio(Fields $track, Fields $exact): AudioFormat
    {
        $channels = array_map(Channel::from(...), $exact->numbers('speakers'));
        $first = array_shift($channels) ?? throw new \UnexpectedValueException('A track has no channels.');
        $pcm = $exact->optional('pcm');
        $audio = new AudioFormat(
            Codec::from($track->text('codec')),
            $track->number('rate'),
            Layout::of($first, ...$channels),
            $pcm === null ? null : new SampleFormat(SampleKind::from($pcm->text('kind')), $pcm->number('bits'), $pcm->bool('big_endian')),
            (string) hex2bin($exact->text('config')),
            $exact->number('frame_length'),
            '',
            $exact->number('width'),
        );
        $label = $track->text('form');

        return $audio->label() === $label ? $audio : $audio->withDecoded($audio->rate, $audio->layout, $audio->frameLength, $label);
    }

    private static function timeline(Fields $exact): Timeline
    {
        return Timeline::edited($exact->number('starts'), array_map(
            fn (Fields $segment): Segment => $segment->isNull('from') ? Segment::silence($segment->number('length')) : Segment::media($segment->number('from'), $segment->number('length')),
            $exact->each('segments'),
        ), $exact->number('coded'));
    }
}
