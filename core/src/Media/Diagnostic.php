<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** Something a reader noticed that does not keep it from reading. */
final readonly class Diagnostic
{
    /** @param  array<string, int|float|string>  $values  what its words name */
    private function __construct(public FindingKind $kind, public Severity $severity, public array $values) {}

    public static function of(FindingKind $kind, Severity $severity, int|float|string ...$values): self
    {
        return new self($kind, $severity, array_filter($values, is_string(...), ARRAY_FILTER_USE_KEY));
    }

    /** Behind the recording that is read stands another one. */
    public static function anotherRecording(int $at, string $what = 'another recording'): self
    {
        return self::of(FindingKind::AnotherRecording, Severity::Warn, at: $at, what: $what);
    }

    /**
     * Stretches between the frames that are read are no part of the same recording.
     *
     * @param  int  $bytes  of all of them
     * @param  int  $at  where the first stands
     */
    public static function otherContent(int $bytes, int $at): self
    {
        return self::of(FindingKind::OtherContent, Severity::Warn, bytes: $bytes, at: $at);
    }

    /** @param  int  $times  how often */
    public static function timeBeginsAnew(int $times): self
    {
        return self::of(FindingKind::TimeBeginsAnew, Severity::Warn, times: $times);
    }

    /**
     * @param  string  $unit  `bytes of sound` or `samples`
     */
    public static function cutShort(int $announced, int $there, string $unit = 'samples'): self
    {
        return self::of(FindingKind::CutShort, Severity::Warn, announced: $announced, there: $there, unit: $unit);
    }
}
