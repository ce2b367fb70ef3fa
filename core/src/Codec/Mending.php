<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** A decoder that puts silence where a packet is damaged, and tells of it. */
interface Mending extends Decoder
{
    /** @return list<array{int, int}> first sample and length of each packet that silence stands for, since this was asked last */
    public function takeMended(): array;
}
