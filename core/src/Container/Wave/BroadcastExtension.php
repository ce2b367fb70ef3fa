<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Tag\Broadcast;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** The `bext` chunk of Broadcast WAV: EBU Tech 3285, 2.3. It says when the recording began, so that it can be laid where it belongs. */
final class BroadcastExtension
{
    /** Without the coding history, which may have any length. */
    public const BYTES = 602;

    /** As much of the coding history as is read. */
    public const MOST_HISTORY = 16_384;

    private const DESCRIPTION = 256;

    private const ORIGINATOR = 32;

    private const DATE_AT = 320;

    private const REFERENCE_AT = 338;

    /** Tags of the file itself come before what stands here. */
    public static function read(string $bytes, Tags $tags): Tags
    {
        $text = function (int $at, int $length) use ($bytes): ?string {
            $value = rtrim(explode("\0", substr($bytes, $at, $length))[0]);

            return $value === '' ? null : (mb_check_encoding($value, 'UTF-8') ? $value
                : (string) mb_convert_encoding($value, 'UTF-8', 'ISO-8859-1'));
        };
        $description = $text(0, self::DESCRIPTION);
        if ($description !== null && $tags->get(TagField::Comment) === null) {
            $tags = $tags->with(TagField::Comment, $description);
        }
        // Some write other signs between the parts of a date and a time than the standard asks.
        [$date, $time] = [strtr((string) $text(self::DATE_AT, 10), '_:./ ', '-----'),
            strtr((string) $text(self::DATE_AT + 10, 8), '_-./ ', ':::::')];
        $broadcast = Broadcast::fromArray(['description' => $description, 'originator' => $text(self::DESCRIPTION, self::ORIGINATOR),
            'reference' => $text(self::DESCRIPTION + self::ORIGINATOR, 32), 'date' => $date === '' ? null : $date,
            'time' => $time === '' ? null : $time, 'history' => $text(self::BYTES, self::MOST_HISTORY)]);
        $reference = unpack('P', substr($bytes, self::REFERENCE_AT, 8));

        return $tags->withBroadcast($broadcast)
            ->withRecorded($broadcast->date === null ? '' : $broadcast->date.($broadcast->time === null ? '' : 'T'.$broadcast->time))
            ->withTimeReference(is_array($reference) && is_int($reference[1]) && $reference[1] >= 0 ? $reference[1] : null);
    }

    /** The whole chunk; empty where neither a time nor a label is known, and nobody asks for it. */
    public static function write(Tags $tags, AudioFormat $audio): string
    {
        $said = $tags->broadcast;
        if ($tags->timeReference === null && $tags->label === '' && $said === null) {
            return '';
        }
        $text = fn (string $value, int $length): string => str_pad(mb_strcut($value, 0, $length, 'UTF-8'), $length, "\0");
        $parts = [$tags->label, $said->description ?? $tags->get(TagField::Comment) ?? $tags->get(TagField::Title) ?? ''];
        $description = implode(': ', array_filter($parts, fn (string $part): bool => $part !== ''));
        $day = $tags->day();
        $isMoment = preg_match('/T(\d\d:\d\d:\d\d)/', $tags->recorded, $moment) === 1;
        // Description, originator, its reference, date, time, time reference, version 1, then empty
        $body = $text($description, self::DESCRIPTION).$text($said->originator ?? 'Octavox', self::ORIGINATOR)
            .$text($said->reference ?? '', 32).$text($said->date ?? $day, 10)
            .$text($said->time ?? ($isMoment ? $moment[1] : ''), 8).pack('P', $tags->timeReference ?? 0).pack('v', 1);
        $chunk = str_pad($body, self::BYTES, "\0").($said === null ? '' : self::history($said, $audio));

        return 'bext'.pack('V', strlen($chunk)).$chunk.(strlen($chunk) % 2 === 1 ? "\0" : '');
    }

    /** What was said before, and a line for what is made now: EBU R 98, Coding history. */
    private static function history(Broadcast $said, AudioFormat $audio): string
    {
        $before = trim(str_replace(["\r\n", "\r"], "\n", $said->history ?? ''));
        $mode = match ($audio->channels()) {
            1 => ',M=mono',
            2 => ',M=stereo',
            default => '',
        };
        $own = $audio->pcm === null ? '' : sprintf('A=PCM,F=%d,W=%d%s,T=Octavox', $audio->rate, $audio->bits(), $mode);
        // What was made before by the same way is said once.
        $lines = array_filter([...explode("\n", $before), str_ends_with($before, $own) ? '' : $own],
            fn (string $line): bool => $line !== '');

        return substr(implode("\r\n", $lines)."\r\n", 0, self::MOST_HISTORY);
    }
}
