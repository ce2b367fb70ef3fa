<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Mpeg;

use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Codec\Video\MpegPictures;
use Octavox\Core\Container\StreamClock;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** One elementary stream, and what was found out of it. */
final class ElementaryTrack
{
    public ?AudioFormat $audio = null;

    /** Ticks of 90 kHz of the first packet, and of the last with a time. */
    public ?int $firstPts = null;

    public ?int $lastPts = null;

    /** Samples of the frames from the last time on. */
    public int $lastSamples = 0;

    public int $width = 0;

    public int $height = 0;

    /** Bytes and ticks that were seen, for an estimate of the rest. */
    public int $seenBytes = 0;

    public ?int $seenUntil = null;

    /** Cuts the first pictures of MPEG-1 and MPEG-2, of which not every one has a time of its own. */
    public ?MpegPictures $cutter = null;

    /** Ticks from the first time in the stream to the first picture that is shown, and how many pictures were looked at. */
    public ?int $firstShown = null;

    public ?int $origin = null;

    public int $pictures = 0;

    /** Whether a picture was seen that can be begun with. */
    public bool $begun = false;

    /** Samples of all frames, gaps included; null where not all were counted. */
    public ?int $counted = null;

    /** Whether its times begin anew somewhere: then it can only be walked from the start. */
    public bool $rebased = false;

    /** Seconds of a gap; what jumps further has begun anew. */
    public float $longestGap = StreamClock::LONGEST_GAP;

    /** Ticks from the first picture to the end of the last, where all were looked at. */
    public ?int $duration = null;

    /** @var array<int, true> times of pictures that were seen, for their rate */
    public array $times = [];

    /** Whether it is put together of recordings that may overlap a little or leave a gap, each with a clock that fits. */
    public bool $mayOverlap = false;

    public string $head = '';

    /**
     * @param  int  $id  as the file numbers it
     * @param  ?FrameParser  $framing  of sound that is frames; null for pictures, PCM and unknown sound
     * @param  ?PcmPackets  $pcm  of uncompressed sound
     */
    public function __construct(public readonly int $id, public readonly Codec $codec, public readonly bool $sound,
        public readonly ?FrameParser $framing, public readonly ?PcmPackets $pcm, public readonly ?string $language = null,
        public readonly string $variant = '', public readonly string $name = '') {}

    /**
     * @param  int  $rate  Hz of the sound as it is decoded
     * @param  bool  $isCounted  whether packets are counted from the start
     * @param  int  $factor  how many samples are decoded where a frame counts one
     */
    public function clock(int $rate, bool $isCounted = true, int $factor = 1): PacketClock
    {
        return $this->mayOverlap ? new StepClock($rate, $this->pcm !== null ? 1 : max(1, $this->audio->frameLength ?? 1) * $factor)
            : new CountingClock($rate, $this->longestGap, $isCounted);
    }
}
