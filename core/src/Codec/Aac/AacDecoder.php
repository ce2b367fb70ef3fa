<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Aac;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\Mending;
use Octavox\Core\Codec\MendsPackets;
use Octavox\Core\Codec\Native\Faad;
use Octavox\Core\Codec\PacketUndecodable;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\VectorMath;

/** AAC access units → sound, several units a block. */
final class AacDecoder implements Mending
{
    use MendsPackets;

    /** Units a block; the calls a block costs are shared among them. */
    private const UNITS = 12;

    /** A damaged unit is replaced by silence; this many one after another, or a first one, are a damaged track. */
    private readonly Faad $library;

    private readonly FloatBuffer $room;

    private int $held = 0;

    private int $units = 0;

    /**
     * @throws Failure
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $this->library = new Faad($audio->config, $audio->rate === AudioSpecificConfig::parse($audio->config)->coreRate);
        if (! $this->library->isReady()) {
            throw PacketUndecodable::at(Codec::Aac, 0, $audio->rate, 'its set-up is not understood');
        }
        // The library may give two channels for one, so there is room for twice the length.
        $this->room = new FloatBuffer((self::UNITS + 2) * 2048 * max(2, $audio->channels()));
    }

    /**
     * The audio format that decoding really gives: band replication and parametric stereo that the set-up does not
     * announce show in the packets, and double the rate or the channels.
     *
     * @param  iterable<Packet>  $first  the first few packets
     *
     * @throws BlockTooLarge
     * @throws BytesMissing
     * @throws LibraryMissing
     */
    public static function probeSbr(AudioFormat $audio, iterable $first): AudioFormat
    {
        $library = new Faad($audio->config);
        $config = AudioSpecificConfig::parse($audio->config);
        $room = new FloatBuffer(2 * 2048 * Layout::MOST_CHANNELS);
        foreach ($first as $packet) {
            if (! $library->isReady() || $library->decode($packet->data, $room, 0) !== '' || $library->samples() === 0) {
                continue;
            }
            $stereo = $library->hasParametricStereo();
            $layout = match (true) {
                $stereo => Layout::stereo(),
                $config->channelConfiguration === 0 => self::declared($library->positions()),
                default => $audio->layout,
            };
            $doubled = $library->hasBandReplication() && $library->rate() >= 2 * $config->coreRate;

            return $audio->withDecoded($doubled ? $library->rate() : $config->coreRate, $layout, $doubled ? 2 * $config->coreFrameLength
                : $config->coreFrameLength, AudioSpecificConfig::variant($config->objectType, $library->hasBandReplication(), $stereo));
        }

        return $audio;
    }

    /**
     * Samples that the encoder put first, where it names itself in its first access unit, in an element that players go by: 0 for others.
     */
    public static function priming(string $first): int
    {
        return preg_match('/libfaac \d+\.\d+/', substr($first, 0, 64)) === 1 ? 1024 : 0;
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     * @throws PacketUndecodable
     */
    public function decode(Packet $packet): ?Block
    {
        $wanted = $this->audio->frameLength * $this->audio->channels();
        $complaint = $this->library->decode($packet->data, $this->room, $this->held);
        if ($complaint !== '') {
            $this->mend(Codec::Aac, $packet, $this->audio->rate, $complaint);
            $this->room->silence($this->held, $wanted);
        } else {
            $this->understood();
            $this->place($wanted);
        }
        $this->held += $wanted;

        return ++$this->units >= self::UNITS ? $this->finish() : null;
    }

    public function finish(): ?Block
    {
        if ($this->units === 0) {
            return null;
        }
        $block = new Block($this->room, intdiv($this->held, $this->audio->channels()), $this->audio->channels());
        $this->held = 0;
        $this->units = 0;

        return $block;
    }

    /**
     * Makes the unit just decoded have the wanted channels and length.
     *
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    private function place(int $wanted): void
    {
        $given = $this->library->samples();
        if ($this->library->channels() === 2 && $this->audio->channels() === 1) {
            // One channel comes doubled, in case parametric stereo begins later.
            $this->keepLeft(intdiv($given, 2));
            $given = intdiv($given, 2);
        } elseif ($given > 0 && $this->library->channels() !== $this->audio->channels()) {
            $given = 0;
        }
        if ($given < $wanted) {
            $this->room->silence($this->held + $given, $wanted - $given);
        }
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    private function keepLeft(int $frames): void
    {
        $stereo = new FloatBuffer(2 * $frames);
        $stereo->copy(0, $this->room, $this->held, 2 * $frames);
        $mono = new FloatBuffer($frames);
        VectorMath::get()->mix($stereo, $mono, $frames, FloatBuffer::fromBytes(pack('f2', 1.0, 0.0)), 2, 1);
        $this->room->copy($this->held, $mono, 0, $frames);
    }

    /** @param  list<int>  $positions neaacdec.h: FRONT_CHANNEL_CENTER 1 … LFE_CHANNEL 9 */
    private static function declared(array $positions): Layout
    {
        $channels = array_map(fn (int $position): Channel => match ($position) {
            1 => Channel::Centre,
            2 => Channel::Left,
            3 => Channel::Right,
            4 => Channel::SideLeft,
            5 => Channel::SideRight,
            6 => Channel::BackLeft,
            7 => Channel::BackRight,
            8 => Channel::BackCentre,
            9 => Channel::LowFrequency,
            default => Channel::Unplaced,
        }, $positions);

        return $channels === [] ? Layout::stereo() : Layout::of(...$channels);
    }
}
