<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** Something a reader noticed that does not keep it from reading. */
final readonly class Diagnostic
{
    public function __construct(public string $code, public Severity $weight, public string $says, public string $remedy)
    {
    }

    /** Behind the recording that is read stands another one. */
    public static function anotherRecording(int $at, string $what = 'another recording'): self
    {
        return new self('another-recording', Severity::Warn,
            sprintf('From byte %s on this file holds %s, which is not read: only what stands before is.', number_format($at), $what),
            'Divide the file there, and bring in both parts.');
    }

    /**
     * Stretches between the frames that are read are no part of the same recording.
     *
     * @param  int  $bytes  of all of them
     * @param  int  $at  where the first stands
     */
    public static function otherContent(int $bytes, int $at): self
    {
        return new self('other-content', Severity::Warn,
            sprintf('%s bytes of this file, from byte %s on, do not belong to the recording that is read: they are damaged, or another '
                .'recording was put behind it.', number_format($bytes), number_format($at)), 'Listen whether something is missing; if '
                    .'so, divide the file there, or copy it again.');
    }

    /** @param  int  $times  how often */
    public static function timeBeginsAnew(int $times): self
    {
        return new self('time-begins-anew', Severity::Warn,
            sprintf('The clock of this recording begins anew %s, as where two recordings were joined or one was interrupted; sound and '
                .'picture go on from there as they are counted.', $times === 1 ? 'once' : "$times times"), 'Look whether sound and '
                    .'picture still fit behind that place; if not, divide the file there.');
    }

    public static function cutShort(int $announced, int $there): self
    {
        return new self('cut-short', Severity::Warn,
            sprintf('The file announces %s samples but only %s are there; what is there can be used.', number_format($announced),
                number_format($there)), 'Copy it again if the original is longer, or make what is there.');
    }
}
