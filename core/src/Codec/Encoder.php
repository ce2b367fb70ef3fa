<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Sound\Block;

/** Sound → packets of one codec. */
interface Encoder
{
    /** What is being made; complete after construction. */
    public function form(): SoundForm;

    /** Samples that a decoder must drop from the begin (the encoder's own delay, without the decoder's). */
    public function delay(): int;

    /** Samples that were added after the end; known after {@see self::finish()}. */
    public function padding(): int;

    /** Name and version for the file's own notes, such as `LAME3.100`. */
    public function maker(): string;

    /** @return iterable<Packet> */
    public function encode(Block $block): iterable;

    /** @return iterable<Packet> */
    public function finish(): iterable;
}
