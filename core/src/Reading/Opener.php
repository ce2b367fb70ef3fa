<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Codec\Aac\AacDecoder;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\OutsideDecoders;
use Octavox\Core\Container\Containers;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\StatedAs;
use Octavox\Core\Disc\StatedTitle;
use Octavox\Core\Disc\VideoDisc;
use Octavox\Core\Failure;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Track;

/** Opens a source and asks the decoders what the containers cannot know, such as band replication that is not announced. */
final class Opener
{
    private const FIRST_PACKETS = 3;

    /** @throws Failure */
    public static function open(string $path, ?StatedAs $stated = null): OpenedSource
    {
        $bytes = FileBytes::open($path);
        $media = $stated === null && VideoDisc::isOne($bytes) ? (new StatedTitle(VideoDisc::open($bytes)->longest()->number))->open($bytes)
            : Containers::open($bytes, $stated);

        return new OpenedSource($media, array_map(
            fn (Track $track): Track => self::probed($media, $track->within($media->source()->size())), $media->tracks()), $stated);
    }

    private static function probed(Demuxer $media, Track $track): Track
    {
        $audio = $track->sound;
        if ($audio !== null && ! Codecs::canDecode($audio) && ! $audio->isProtected()
            && OutsideDecoders::knows($audio)) {
            return $track->withSound($audio->outside());
        }
        if ($track->sound === null || $track->sound->codec !== Codec::Aac || ! Codecs::canDecode($track->sound)) {
            return $track;
        }
        $packets = [];
        try {
            // The first sound that is presented, not the encoder's run-in, shows what the stream is.
            foreach ($media->packets($track, 0, self::FIRST_PACKETS * max(1, $track->sound->frameLength)) as $packet) {
                $packets[] = $packet;
            }

            $settled = $track->withSound(AacDecoder::probeSbr($track->sound, $packets));

            return $settled->primed(AacDecoder::priming($packets[0]->data ?? ''));
        } catch (Failure) {
            // Bytes that are missing are told of by the reading; the index's own word stands.
            return $track;
        }
    }
}
