<?php

declare(strict_types=1);

namespace Octavox\Core\Name;

/** What a file is called where its name is taken: `clip.wav`, `clip 2.wav`, `clip 3.wav` … */
final class NumberedName
{
    public static function write(string $name, int $number): string
    {
        if ($number < 2) {
            return $name;
        }
        $extension = pathinfo($name, PATHINFO_EXTENSION);
        $stem = $extension === '' ? $name : substr($name, 0, -strlen($extension) - 1);

        return $stem.' '.$number.($extension === '' ? '' : '.'.$extension);
    }
}
