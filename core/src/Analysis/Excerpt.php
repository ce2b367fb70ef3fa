<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Decode\TrackDecoder;
use Octavox\Core\Decode\TrackMissing;
use Octavox\Core\Failure;
use Octavox\Core\Media\PresentationStart;
use Octavox\Core\Media\Segment;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\Native\SampleConversion;

/** A stretch of a track as it would be made, for hearing it at once. */
final class Excerpt
{
    /**
     * @param  int  $from  samples from where the sound begins
     * @return iterable<string> interleaved 16-bit samples, least significant byte first
     *
     * @throws Failure
     */
    public static function decode(OpenedSource $source, int $number, int $from, int $count): iterable
    {
        $track = $source->track($number);
        $audio = $track?->sound;
        if ($track === null || $audio === null) {
            throw TrackMissing::sound($source->media->source()->name());
        }
        if (! Codecs::canDecode($audio)) {
            throw CodecNotDecodable::of($audio);
        }
        $segments = $track->timeline->from(PresentationStart::find($source->tracks, $audio->rate));
        $part = Segment::between($segments, max(0, $from), max(0, $from) + max(0, $count));
        foreach ((new TrackDecoder($source->media, $track))->blocks($part) as $block) {
            yield SampleConversion::get()->bytes16($block->buffer, $block->first(), $block->samples());
        }
    }
}
