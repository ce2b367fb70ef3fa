<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

/** A file that tells which encoder made its sound: copies must go on saying so, because players go by it. */
interface EncoderNamed extends Demuxer
{
    /** As it stands in the file; empty where it is not told. */
    public function encoderName(): string;
}
