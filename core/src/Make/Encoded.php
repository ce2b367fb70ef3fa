<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Sound\Level;

/** What was measured of a sound while it was encoded. */
final readonly class Encoded
{
    /**
     * @param  Level  $level  of the sound as it went into the encoder
     * @param  ?Level  $incoming  of the sound as it came in, where channels, fades or a gain change it
     * @param  ?string  $samples  XXH128 of the samples as they went into an encoder that keeps every bit
     * @param  ?DecodeDigest  $digest  what was decoded of it meanwhile
     * @param  ?LevelSetting  $setting  what was measured before the level was set
     * @param  ?int  $frames  samples of each channel that went into the encoder; null where that is not known
     */
    public function __construct(public Level $level, public ?Level $incoming = null, public ?string $samples = null,
        public ?DecodeDigest $digest = null, public ?LevelSetting $setting = null, public ?int $frames = null) {}
}
