<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Sound\Block;

/** Sound → packets of one codec. */
interface Encoder
{
    /** What is being made. Complete after construction, but for what only the end tells, such as a checksum of all samples. */
    public function audio(): AudioFormat;

    /** Samples of the decoded sound to be left out at the start: the encoder's delay and the decoder's together. */
    public function delay(): int;

    /** Name and version for the file's own notes, such as `LAME3.100`. */
    public function maker(): string;

    /** @return iterable<Packet> */
    public function encode(Block $block): iterable;

    /** @return iterable<Packet> */
    public function finish(): iterable;
}
