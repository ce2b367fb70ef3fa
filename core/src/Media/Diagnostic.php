<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

use Octavox\Core\Media\Findings\FindingKind;

/** Something a reader noticed that does not keep it from reading. */
final readonly class Diagnostic
{
    public function __construct(public FindingKind $kind, public Severity $severity) {}

    /** Behind the recording that is read stands another one. */
    public static function anotherRecording(int $at, string $what = 'another recording'): self
    {
        return new self(new Findings\AnotherRecording($at, $what), Severity::Warn);
    }

    /**
     * Stretches between the frames that are read are no part of the same recording.
     *
     * @param  int  $bytes  of all of them
     * @param  int  $at  where the first stands
     */
    public static function otherContent(int $bytes, int $at): self
    {
        return new self(new Findings\OtherContent($bytes, $at), Severity::Warn);
    }

    /** @param  int  $times  how often */
    public static function timeBeginsAnew(int $times): self
    {
        return new self(new Findings\TimeBeginsAnew($times), Severity::Warn);
    }

    /**
     * @param  string  $unit  `bytes of sound` or `samples`
     */
    public static function cutShort(int $announced, int $there, string $unit = 'samples'): self
    {
        return new self(new Findings\CutShort($announced, $there, $unit), Severity::Warn);
    }
}
