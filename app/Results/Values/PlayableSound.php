<?php

declare(strict_types=1);

namespace App\Results\Values;

/** One sound to hear: the file itself where a browser may play it, and the same decoded here, for one that cannot. */
final readonly class PlayableSound
{
    /**
     * @param  string  $media  address of the file itself; empty where it is played elsewhere
     * @param  string  $type  its media type
     * @param  string  $decoded  address of the decoded sound
     */
    public function __construct(public string $title, public string $media, public string $type, public string $decoded) {}
}
