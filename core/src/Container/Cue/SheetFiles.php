<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Cue;

/** Which of the files beside a sheet it means: names are often of another machine, or of a time before the recording was packed smaller. */
final class SheetFiles
{
    /** What a recording that a sheet calls otherwise may be by now. */
    private const RECORDINGS = ['wav', 'wave', 'flac', 'wv', 'aif', 'aiff', 'm4a', 'caf', 'w64', 'mp3', 'ogg', 'opus'];

    /**
     * @param  string  $said  as the sheet names it; folders of another machine say nothing
     * @param  string  $kind  as the sheet says, in capitals: BINARY, MOTOROLA, WAVE, AIFF, MP3
     * @param  list<string>  $names  what lies beside the sheet
     * @return ?string one of them; null where none is meant, or more than one may be
     */
    public static function meant(string $said, string $kind, array $names): ?string
    {
        $file = basename(str_replace('\\', '/', $said));
        $names = array_filter($names, fn (string $name): bool => self::extension($name) !== 'cue');
        if (in_array($file, $names, true)) {
            return $file;
        }
        $stem = fn (string $name): string => mb_strtolower(pathinfo($name, PATHINFO_FILENAME));
        $isPacked = ! in_array($kind, ['BINARY', 'MOTOROLA'], true) && self::extension($file) !== 'cue';

        return self::only($names, fn (string $name): bool => mb_strtolower($name) === mb_strtolower($file))
            ?? ($isPacked ? self::only($names, fn (string $name): bool => $stem($name) === $stem($file)
                && in_array(self::extension($name), self::RECORDINGS, true)) : null);
    }

    /**
     * @param  array<string>  $names
     * @param  \Closure(string): bool  $is
     */
    private static function only(array $names, \Closure $is): ?string
    {
        $found = array_values(array_filter($names, $is));

        return count($found) === 1 ? $found[0] : null;
    }

    private static function extension(string $name): string
    {
        return strtolower(pathinfo($name, PATHINFO_EXTENSION));
    }
}
