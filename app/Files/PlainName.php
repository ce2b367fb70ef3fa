<?php

declare(strict_types=1);

namespace App\Files;

/** Whether a name says anything: those that programs give by themselves do not. */
final class PlainName
{
    private const WORDS = ['audio', 'video', 'recording', 'record', 'rec', 'meeting', 'call', 'conference', 'untitled',
        'new', 'voice', 'memo',
        'clip', 'track', 'file', 'movie', 'sound', 'capture', 'screen', 'only', 'of', 'dsc', 'img', 'mov', 'vid', 'gx', 'gh', 'mvi'];

    public static function saysNothing(string $name): bool
    {
        $words = preg_split('/[^\p{L}]+/u', mb_strtolower(pathinfo($name, PATHINFO_FILENAME)), -1, PREG_SPLIT_NO_EMPTY);

        return array_diff($words ?: [], self::WORDS) === [];
    }
}
