<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/** One kind of video that can be made: the picture is always kept, sound is kept where the container carries it. */
interface VideoOutputFormat
{
    public function name(): string;

    public function label(): string;

    public function extension(): string;

    public function suits(): string;

    public function carriesPicture(Codec $codec): bool;

    /** What somebody should know before sound of this format is kept; null where nothing stands against it. */
    public function doubts(AudioFormat $audio): ?string;

    public function carriesSound(AudioFormat $audio): bool;

    /** Whether it says which channel is which of sound of this format, where there are more than two. */
    public function holdsLayout(AudioFormat $audio): bool;

    /** @param  string  $coding  of a {@see AuxiliaryTrack}; plain text is coded anew where it must be */
    public function carriesAuxiliary(string $coding): bool;

    /** How sound is encoded that the container does not carry. */
    public function encodes(): OutputFormat;

    /**
     * What such a file takes beside the packets that are copied, about.
     *
     * @return array{int, int, int, int} bytes that stand once, for each picture, for each packet of sound, and for each second
     */
    public function indexBytes(): array;

    public function writer(ByteSink $sink, VideoParts $parts): VideoWriter;
}
