<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Cue;

/**
 * What a CUE sheet says: the files of a disc, where its tracks and the gaps before them begin, and their words. The commands FILE, TRACK,
 * INDEX, FLAGS, TITLE, PERFORMER, SONGWRITER, ISRC, CATALOG and CDTEXTFILE as they are in general use; REM GENRE and REM DATE as those
 * write them who copy discs.
 */
final class CueSheet
{
    public const MOST_BYTES = 1_000_000;

    /** Red Book, IEC 60908: a disc has 99 tracks at most. */
    private const MOST_TRACKS = 99;

    public const FRAMES = 75;

    /** Where INDEX 01 of the first track stands beyond the pause that every disc begins with, something is hidden before it. */
    private const PAUSE_FRAMES = 150;

    /** @var list<array{string, string}> name and kind of each file */
    public array $files = [];

    /** @var list<CueTrack> */
    public array $tracks = [];

    public string $title = '';

    public string $performer = '';

    public string $songwriter = '';

    public string $genre = '';

    public string $date = '';

    /** Number of the disc in shops: 13 digits. */
    public string $catalog = '';

    /** Name of the file with the disc's own text; empty where there is none. */
    public string $textFile = '';

    /** Whether a track holds data. */
    public bool $hasData = false;

    private ?CueTrack $current = null;

    public static function isOne(string $text): bool
    {
        return strlen($text) <= self::MOST_BYTES && preg_match('/^\s*FILE\s+\S/mi', $text) === 1
            && preg_match('/^\s*TRACK\s+\d+\s+\S/mi', $text) === 1
            && preg_match('/^\s*INDEX\s+0[01]\s+\d/mi', $text) === 1;
    }

    public static function parse(string $text): self
    {
        $text = str_starts_with($text, "\xEF\xBB\xBF") ? substr($text, 3) : $text;
        $text = mb_check_encoding($text, 'UTF-8') ? $text : (string) mb_convert_encoding($text, 'UTF-8', 'Windows-1252');
        $sheet = new self;
        foreach (preg_split('/\R/', $text) ?: [] as $line) {
            if (preg_match('/^\s*(REM\s+[A-Z_]+|[A-Z0-9]+)\s+(.*?)\s*$/i', $line, $parts) === 1) {
                $sheet->line((string) preg_replace('/\s+/', ' ', strtoupper($parts[1])), $parts[2]);
            }
        }
        $sheet->tracks = array_values(array_filter($sheet->tracks, fn (CueTrack $track): bool => $track->isPlaced));
        $sheet->revealHidden();

        return $sheet;
    }

    private function line(string $command, string $rest): void
    {
        $isQuoted = preg_match('/^"(.*)"(?:\s+(\S+))?$/', $rest, $quoted) === 1;
        $value = $isQuoted ? $quoted[1] : $rest;
        $of = $this->current ?? $this;
        match ($command) {
            'FILE' => $this->files[] = ! $isQuoted && preg_match('/^(\S.*?)\s+(\S+)$/', $rest, $plain) === 1
                ? [$plain[1], strtoupper($plain[2])] : [$value, strtoupper($quoted[2] ?? 'WAVE')],
            'TRACK' => $this->track($rest),
            'TITLE' => $of->title = $value,
            'PERFORMER' => $of->performer = $value,
            'SONGWRITER' => $of->songwriter = $value,
            'INDEX' => $this->index($value),
            'ISRC' => $this->current === null ? null : $this->current->isrc = self::isrc($value),
            'FLAGS' => $this->current === null ? null : $this->current->isEmphasised = preg_match('/\bPRE\b/i', $value) === 1,
            'CATALOG' => $this->catalog = preg_match('/^\d{13}$/', $value) === 1 ? $value : '',
            'CDTEXTFILE' => $this->textFile = $value,
            'REM GENRE' => $this->genre = $value,
            'REM DATE' => $this->date = $value,
            default => null,
        };
    }

    private function track(string $rest): void
    {
        $this->hasData = $this->hasData || preg_match('/\bAUDIO\b/i', $rest) !== 1;
        $this->current = new CueTrack((int) $rest);
        if (count($this->tracks) < self::MOST_TRACKS) {
            $this->tracks[] = $this->current;
        }
    }

    private function index(string $value): void
    {
        if (preg_match('/^(00|01)\s+(\d{1,4}):(\d{1,2}):(\d{1,2})$/', $value, $time) !== 1 || $this->current === null
            || $this->files === []) {
            return;
        }
        $frames = ((int) $time[2] * 60 + (int) $time[3]) * self::FRAMES + (int) $time[4];
        $file = count($this->files) - 1;
        if ($time[1] === '00') {
            $this->current->gap = [$file, $frames];
        } elseif (! $this->current->isPlaced) {
            [$this->current->file, $this->current->frames, $this->current->isPlaced] = [$file, $frames, true];
        }
    }

    /** ISO 3901: country, registrant, year, number; hyphens are left out. */
    private static function isrc(string $value): string
    {
        $code = strtoupper(str_replace('-', '', $value));

        return preg_match('/^[A-Z]{2}[A-Z0-9]{3}\d{7}$/', $code) === 1 ? $code : '';
    }

    private function revealHidden(): void
    {
        $first = $this->tracks[0] ?? null;
        if ($first !== null && $first->file === 0 && $first->frames > self::PAUSE_FRAMES) {
            $hidden = new CueTrack(0);
            $hidden->title = 'Hidden before the first track';
            $first->gap = null;
            array_unshift($this->tracks, $hidden);
        }
    }
}
