<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;

/**
 * Programs of the machine's owner that decode what nothing here does: a JSON object, codec → command, in the file that the environment
 * variable OCTAVOX_DECODERS names. A command has `{path}` where the file's path goes, and may have `{track}` for the track's number; it
 * writes WAV to its standard output.
 */
final class OutsideDecoders
{
    public const VARIABLE = 'OCTAVOX_DECODERS';

    private const MOST_BYTES = 100_000;

    private const MOST_WORDS = 100;

    /** From here on this process, and those that it begins, go by a file. */
    public static function by(string $path): void
    {
        putenv(self::VARIABLE.'='.$path);
    }

    /** @return ?non-empty-list<string> the words of the command that decodes a format, with their fields; null where there is none */
    public static function command(AudioFormat $audio): ?array
    {
        return self::words(self::all()[$audio->codecKey()] ?? '');
    }

    public static function knows(AudioFormat $audio): bool
    {
        return self::command($audio) !== null;
    }

    /**
     * The words of a command, separated by spaces; quotation marks keep spaces together. No shell ever reads it.
     *
     * @return ?non-empty-list<string> null where it is none, or does not say where the path goes
     */
    public static function words(string $command): ?array
    {
        if (preg_match_all('/"((?:[^"\\\\]|\\\\.)*)"|\'([^\']*)\'|([^\s"\']+)/u', trim($command), $found, PREG_SET_ORDER) < 1) {
            return null;
        }
        $words = array_map(fn (array $one): string => match (true) {
            ($one[3] ?? '') !== '' => $one[3],
            ($one[2] ?? '') !== '' => $one[2],
            default => stripslashes($one[1] ?? ''),
        }, array_slice($found, 0, self::MOST_WORDS));
        $hasPath = array_filter($words, fn (string $word): bool => str_contains($word, '{path}')) !== [];

        return $words !== [] && $hasPath && $words[0] !== '' && ! str_contains($words[0], '{') ? array_values($words) : null;
    }

    /** @return array<string, string> */
    private static function all(): array
    {
        $path = (string) getenv(self::VARIABLE);
        $json = $path === '' || ! is_file($path) || filesize($path) > self::MOST_BYTES ? '' : (string) @file_get_contents($path);
        $document = json_decode($json, true);

        return is_array($document) ? array_filter($document, fn (mixed $command, int|string $codec): bool => is_string($command)
            && is_string($codec), ARRAY_FILTER_USE_BOTH) : [];
    }
}
