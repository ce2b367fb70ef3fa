<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

use Octavox\Core\Media\Packet;

/** Writes a video: pictures and sound as they come, in the order of time. */
interface VideoWriter
{
    /** Seconds by which pictures and sound may run ahead of each other. */
    public function step(): float;

    public function picture(PictureSample $sample): void;

    /** @param  int  $sound  counted from 0 */
    public function sound(int $sound, Packet $packet): void;

    /** @param  int  $auxiliary  counted from 0; times from the first picture on */
    public function auxiliary(int $auxiliary, AuxiliarySample $sample): void;

    public function finish(): void;
}
