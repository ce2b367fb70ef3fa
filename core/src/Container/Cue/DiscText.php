<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Cue;

/**
 * The text that a disc carries itself, as those write it to a file who copy discs: packs of 18 bytes (IEC 61866, 5, in the form of the
 * lead-in: type, track, sequence, block and place, twelve bytes of text, a sum), with or without four bytes of length before them.
 */
final class DiscText
{
    private const PACK = 18;

    /** The first language of a disc; others are left alone. */
    private const MOST_PACKS = 2048;

    /** Kinds of packs: titles, performers, songwriters, codes of the disc and of tracks. */
    private const TITLE = 0x80;

    private const PERFORMER = 0x81;

    private const SONGWRITER = 0x82;

    private const CODES = 0x8E;

    /**
     * Fills in what a sheet does not say itself.
     *
     * @param  string  $bytes  of the file; what is none changes nothing
     */
    public static function into(CueSheet $sheet, string $bytes): void
    {
        foreach (self::texts($bytes) as $kind => $texts) {
            foreach ($texts as $track => $text) {
                $of = $track === 0 ? $sheet : self::track($sheet, $track);
                match (true) {
                    $of === null || $text === '' => null,
                    $kind === self::TITLE => $of->title = $of->title === '' ? $text : $of->title,
                    $kind === self::PERFORMER => $of->performer = $of->performer === '' ? $text : $of->performer,
                    $kind === self::SONGWRITER => $of->songwriter = $of->songwriter === '' ? $text : $of->songwriter,
                    $of instanceof CueTrack => $of->isrc = $of->isrc === '' && preg_match('/^[A-Z]{2}[A-Z0-9]{3}\d{7}$/', $text) === 1
                        ? $text : $of->isrc,
                    default => null,
                };
            }
        }
    }

    private static function track(CueSheet $sheet, int $number): ?CueTrack
    {
        return array_values(array_filter($sheet->tracks, fn (CueTrack $one): bool => $one->number === $number))[0] ?? null;
    }

    /** @return array<int, array<int, string>> by kind and by track, 0 for the disc */
    private static function texts(string $bytes): array
    {
        // The sizes that a whole number of packs cannot have mean that a length stands before, or a zero behind.
        $bytes = strlen($bytes) % self::PACK === 4 ? substr($bytes, 4) : $bytes;
        $found = [];
        $held = [];
        for ($at = 0, $count = 0; $at + self::PACK <= strlen($bytes) && $count < self::MOST_PACKS; $at += self::PACK, $count++) {
            $pack = substr($bytes, $at, self::PACK);
            $kind = ord($pack[0]);
            $block = ord($pack[3]) >> 4 & 7;
            $isWide = (ord($pack[3]) & 0x80) !== 0;
            if (! self::isSound($pack) || $block !== 0 || $isWide
                || ! in_array($kind, [self::TITLE, self::PERFORMER, self::SONGWRITER, self::CODES], true)) {
                continue;
            }
            $track = ord($pack[1]) & 0x7F;
            // How much of this text stood in the packs before: none where the pack begins with it.
            $text = (ord($pack[3]) & 15) === 0 ? '' : $held[$kind] ?? '';
            foreach (str_split(substr($pack, 4, 12)) as $letter) {
                if ($letter === "\0") {
                    // A tab means that it is the same as of the track before.
                    $found[$kind][$track] = $text === "\t" ? $found[$kind][$track - 1] ?? ''
                        : trim((string) mb_convert_encoding($text, 'UTF-8', 'ISO-8859-1'));
                    $text = '';
                    $track++;
                } else {
                    $text .= $letter;
                }
            }
            $held[$kind] = $text;
        }

        return $found;
    }

    /** The sum of a pack: x¹⁶ + x¹² + x⁵ + 1, inverted. Packs without one, which some programs write, are believed. */
    private static function isSound(string $pack): bool
    {
        if (substr($pack, 16) === "\0\0") {
            return true;
        }
        $sum = 0;
        foreach (str_split(substr($pack, 0, 16)) as $byte) {
            $sum ^= ord($byte) << 8;
            for ($bit = 0; $bit < 8; $bit++) {
                $sum = ($sum & 0x8000) !== 0 ? ($sum << 1 ^ 0x1021) & 0xFFFF : $sum << 1 & 0xFFFF;
            }
        }

        return pack('n', ~$sum & 0xFFFF) === substr($pack, 16);
    }
}
