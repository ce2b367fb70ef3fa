<?php

declare(strict_types=1);

namespace Octavox\Core\Tag;

/** The INFO list of RIFF files; text is written as UTF-8 and read as UTF-8 or, where it is not that, Windows-1252. */
final class RiffInfo
{
    /** @param  string  $body what follows the four letters INFO */
    public static function read(string $body): Tags
    {
        $tags = Tags::none();
        for ($at = 0; $at + 8 <= strlen($body); $at += 8 + $size + ($size & 1)) {
            $size = unpack('V', substr($body, $at + 4, 4))[1] ?? 0;
            $size = is_int($size) ? $size : 0;
            if ($size > strlen($body) - $at - 8) {
                break;
            }
            $text = rtrim(substr($body, $at + 8, $size), "\0");
            $text = mb_check_encoding($text, 'UTF-8') ? $text : (string) mb_convert_encoding($text, 'UTF-8', 'Windows-1252');
            foreach (TagField::cases() as $field) {
                if ($field->riff() === substr($body, $at, 4)) {
                    $tags = $tags->with($field, $text);
                }
            }
        }

        return $tags;
    }

    /** The body of a LIST chunk, the letters INFO included; empty where there is nothing to say. */
    public static function write(Tags $tags): string
    {
        $body = '';
        foreach (TagField::cases() as $field) {
            $value = $tags->get($field);
            $name = $field->riff();
            if ($value !== null && $name !== null) {
                $text = $value."\0";
                $body .= $name.pack('V', strlen($text)).$text.(strlen($text) % 2 === 1 ? "\0" : '');
            }
        }

        return $body === '' ? '' : 'INFO'.$body;
    }
}
