<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

/**
 * A list of recordings in a file of its own: M3U and M3U8 (text, a name in each line), PLS (`FileN=`), XSPF 1 (`<location>`). Names are
 * told as they stand there, relative to the list; what is an address on a network is no file.
 */
final readonly class Playlist
{
    /** Bytes of the longest list that is read. */
    private const MOST_BYTES = 8_000_000;

    private const MOST_ENTRIES = 20_000;

    /** @param  list<string>  $names  of files, with slashes, relative to the folder of the list or absolute */
    private function __construct(public array $names, public int $addresses) {}

    public static function isOne(string $path): bool
    {
        return in_array(strtolower(pathinfo($path, PATHINFO_EXTENSION)), ['m3u', 'm3u8', 'pls', 'xspf'], true);
    }

    /** What a file lists; nothing where it cannot be read or is none. */
    public static function read(string $path): self
    {
        $text = (string) @file_get_contents($path, length: self::MOST_BYTES);
        // A byte order mark says how the text is written: Unicode 15, 23.8.
        $text = match (true) {
            str_starts_with($text, "\xEF\xBB\xBF") => substr($text, 3),
            str_starts_with($text, "\xFF\xFE") => mb_convert_encoding(substr($text, 2), 'UTF-8', 'UTF-16LE'),
            str_starts_with($text, "\xFE\xFF") => mb_convert_encoding(substr($text, 2), 'UTF-8', 'UTF-16BE'),
            default => $text,
        };
        if (! mb_check_encoding((string) $text, 'UTF-8')) {
            // M3U without the 8 is written as the machine it was made on writes: mostly Windows-1252.
            $text = mb_convert_encoding((string) $text, 'UTF-8', 'Windows-1252');
        }

        return self::of((string) $text, strtolower(pathinfo($path, PATHINFO_EXTENSION)));
    }

    private static function of(string $text, string $kind): self
    {
        $found = match ($kind) {
            'pls' => self::matches('/^\s*File\d+\s*=\s*(.+?)\s*$/mi', $text),
            'xspf' => array_map(fn (string $one): string => html_entity_decode(trim($one), ENT_QUOTES | ENT_XML1, 'UTF-8'),
                self::matches('~<location>\s*(.*?)\s*</location>~s', (string) preg_replace('/<!--.*?-->/s', '', $text))),
            default => array_filter(array_map(trim(...), preg_split('/\R/', $text) ?: []),
                fn (string $line): bool => $line !== '' && ! str_starts_with($line, '#')),
        };
        $names = [];
        $addresses = 0;
        foreach (array_slice(array_values($found), 0, self::MOST_ENTRIES) as $one) {
            $name = self::file($one, $kind === 'xspf');
            $name === null ? $addresses++ : $names[] = $name;
        }

        return new self($names, $addresses);
    }

    /** @return list<string> */
    private static function matches(string $pattern, string $text): array
    {
        preg_match_all($pattern, $text, $found);

        return $found[1] ?? [];
    }

    /** @param  bool  $isAddress  whether it is written as addresses are, with signs in percent (RFC 3986) */
    private static function file(string $name, bool $isAddress): ?string
    {
        // No file has a zero in its name: such a line names one that is not there, and is told so.
        $name = str_replace("\0", "\u{2400}", $name);
        if (preg_match('~^file:(?://[^/]*)?(/.*)$~i', $name, $match) === 1) {
            return str_replace("\0", "\u{2400}", rawurldecode($match[1]));
        }
        if (preg_match('~^[a-z][a-z0-9+.-]+:~i', $name) === 1) {
            return null;
        }

        return str_replace(['\\', "\0"], ['/', "\u{2400}"], $isAddress ? rawurldecode($name) : $name);
    }
}
