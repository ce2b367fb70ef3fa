<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Cue;

/**
 * What a CUE sheet says: the files of a disc, where its tracks begin in them, and their words. The commands FILE, TRACK, INDEX, TITLE and
 * PERFORMER as they are in general use; REM GENRE and REM DATE as those write them who copy discs.
 */
final class CueSheet
{
    private const MOST_BYTES = 1_000_000;

    /** Red Book, IEC 60908: a disc has 99 tracks at most. */
    private const MOST_TRACKS = 99;

    private const FRAMES = 75;

    /** Where INDEX 01 of the first track stands beyond the pause that every disc begins with, something is hidden before it. */
    private const PAUSE_FRAMES = 150;

    /** @var list<array{string, string}> name and kind of each file */
    public array $files = [];

    /** @var list<CueTrack> */
    public array $tracks = [];

    public string $title = '';

    public string $performer = '';

    public string $genre = '';

    public string $date = '';

    /** Whether a track holds data. */
    public bool $hasData = false;

    public static function isOne(string $text): bool
    {
        return strlen($text) <= self::MOST_BYTES && preg_match('/^\s*FILE\s+\S/mi', $text) === 1
            && preg_match('/^\s*TRACK\s+\d+\s+\S/mi', $text) === 1
            && preg_match('/^\s*INDEX\s+01\s+\d/mi', $text) === 1;
    }

    public static function parse(string $text): self
    {
        $text = str_starts_with($text, "\xEF\xBB\xBF") ? substr($text, 3) : $text;
        $text = mb_check_encoding($text, 'UTF-8') ? $text : (string) mb_convert_encoding($text, 'UTF-8', 'Windows-1252');
        $sheet = new self;
        $number = 0;
        $title = $performer = '';
        foreach (preg_split('/\R/', $text) ?: [] as $line) {
            if (preg_match('/^\s*(REM\s+[A-Z_]+|[A-Z0-9]+)\s+(.*?)\s*$/i', $line, $parts) !== 1) {
                continue;
            }
            $value = preg_match('/^"(.*)"(?:\s+(\S+))?$/', $parts[2], $quoted) === 1 ? $quoted[1] : $parts[2];
            switch ((string) preg_replace('/\s+/', ' ', strtoupper($parts[1]))) {
                case 'FILE':
                    $isPlain = preg_match('/^(\S.*?)\s+(\S+)$/', $parts[2], $plain) === 1 && ! isset($quoted[1]);
                    $sheet->files[] = $isPlain ? [$plain[1], strtoupper($plain[2])] : [$value, strtoupper($quoted[2] ?? 'WAVE')];
                    break;
                case 'TRACK':
                    $number = (int) $parts[2];
                    $title = $performer = '';
                    $sheet->hasData = $sheet->hasData || preg_match('/\bAUDIO\b/i', $parts[2]) !== 1;
                    break;
                case 'TITLE':
                    $number === 0 ? $sheet->title = $value : $title = $value;
                    break;
                case 'PERFORMER':
                    $number === 0 ? $sheet->performer = $value : $performer = $value;
                    break;
                case 'INDEX':
                    $sheet->index($number, $value, $title, $performer);
                    break;
                case 'REM GENRE':
                    $sheet->genre = $value;
                    break;
                case 'REM DATE':
                    $sheet->date = $value;
                    break;
            }
            $quoted = [];
        }
        $sheet->revealHidden();

        return $sheet;
    }

    private function index(int $number, string $value, string $title, string $performer): void
    {
        if (preg_match('/^01\s+(\d{1,4}):(\d{1,2}):(\d{1,2})$/', $value, $time) !== 1 || $number === 0 || $this->files === []
            || count($this->tracks) >= self::MOST_TRACKS) {
            return;
        }
        $frames = ((int) $time[1] * 60 + (int) $time[2]) * self::FRAMES + (int) $time[3];
        $this->tracks[] = new CueTrack($number, count($this->files) - 1, $frames, $title,
            $performer === $this->performer ? '' : $performer);
    }

    private function revealHidden(): void
    {
        $first = $this->tracks[0] ?? null;
        if ($first !== null && $first->file === 0 && $first->frames > self::PAUSE_FRAMES) {
            array_unshift($this->tracks, new CueTrack(0, 0, 0, 'Hidden before the first track', ''));
        }
    }
}
