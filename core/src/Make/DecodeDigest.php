<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Json\Fields;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Sound\Level;

/** What a {@see VerifyingDecoder} has decoded of a result while it was being made. */
final readonly class DecodeDigest
{
    /**
     * @param  string  $packets  XXH128 of all packets one after another
     * @param  int  $frames  decoded samples that are presented
     * @param  Level  $level  of them, nothing where they must be equal to others
     * @param  string  $samples  XXH128 of them as float32, of nothing where that cannot be
     * @param  AudioFormat  $audio  how they were decoded
     * @param  int  $delay  decoded samples that were left out before
     */
    public function __construct(public string $packets, public int $frames, public Level $level, public string $samples,
        public AudioFormat $audio, public int $delay) {}

    /** @return array<string, mixed> without the audio format */
    public function toArray(): array
    {
        return ['packets' => $this->packets, 'frames' => $this->frames, 'peak' => $this->level->peak, 'rms' => $this->level->rms,
            'hash' => $this->samples];
    }

    /**
     * @param  Fields  $fields  what {@see self::toArray()} gave
     *
     * @throws \UnexpectedValueException where it is not that
     */
    public static function fromFields(Fields $fields, AudioFormat $audio, int $delay): self
    {
        return new self($fields->text('packets'), $fields->number('frames'), new Level($fields->float('peak'), $fields->float('rms')),
            $fields->text('hash'), $audio, $delay);
    }
}
