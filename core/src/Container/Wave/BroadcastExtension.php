<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** The `bext` chunk of Broadcast WAV: EBU Tech 3285, 2.3. It says when the recording began, so that it can be laid where it belongs. */
final class BroadcastExtension
{
    /** Without the coding history, which may have any length. */
    public const BYTES = 602;

    private const DESCRIPTION = 256;

    private const REFERENCE_AT = 338;

    /** Tags of the file itself come before what stands here. */
    public static function read(string $bytes, Tags $tags): Tags
    {
        $description = rtrim(explode("\0", substr($bytes, 0, self::DESCRIPTION))[0]);
        if ($description !== '' && $tags->get(TagField::Comment) === null) {
            $tags = $tags->with(TagField::Comment, mb_check_encoding($description, 'UTF-8') ? $description
                : (string) mb_convert_encoding($description, 'UTF-8', 'ISO-8859-1'));
        }
        $reference = unpack('P', substr($bytes, self::REFERENCE_AT, 8));

        return $tags->withTimeReference(is_array($reference) && is_int($reference[1]) && $reference[1] >= 0 ? $reference[1] : null);
    }

    /** The whole chunk; empty where neither a time nor a label is known. */
    public static function write(Tags $tags): string
    {
        if ($tags->timeReference === null && $tags->label === '') {
            return '';
        }
        $text = fn (string $value, int $length): string => str_pad(mb_strcut($value, 0, $length, 'UTF-8'), $length, "\0");
        // Description, originator, its reference, date and time (not told), time, version 1, then empty
        $body = $text(implode(': ',
            array_filter([$tags->label, $tags->get(TagField::Comment) ?? $tags->get(TagField::Title) ?? ''],
                fn (string $part): bool => $part !== '')), self::DESCRIPTION).$text('Octavox', 32).str_repeat("\0", 32 + 10 + 8).pack('P',
                    $tags->timeReference ?? 0).pack('v', 1);

        return 'bext'.pack('V', self::BYTES).str_pad($body, self::BYTES, "\0");
    }
}
