<?php

declare(strict_types=1);

namespace App\Results\Values;

/** The sign of the tab while something is made: the two lines, and beneath them how much is done. */
final class WorkMark
{
    private const WIDTH = 44;

    /** @param  int  $percent  0 to 100 */
    public static function svg(int $percent): string
    {
        $done = round(self::WIDTH * max(0, min(100, $percent)) / 100, 1);

        return '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 44 44"><g fill="none" stroke-width="5" stroke-linecap="round">'
            .'<path d="M3 9 C 14 9, 16 14, 22 14 S 30 9, 41 9" stroke="#1f6f63"/>'
            .'<path d="M3 22 C 14 22, 16 16, 22 16 S 30 22, 41 22" stroke="#b5651d" stroke-dasharray="7 7"/></g>'
            .'<rect x="0" y="32" width="44" height="10" fill="#cfc3ae"/><rect x="0" y="32" width="'.$done
                .'" height="10" fill="#6b1d4a"/></svg>';
    }
}
