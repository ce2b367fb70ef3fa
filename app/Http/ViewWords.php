<?php

declare(strict_types=1);

namespace App\Http;

use App\Database\FoundNames;
use App\Files\PlainName;
use App\Lists\Humanize;
use Illuminate\Support\Carbon;
use Octavox\Core\Disc\StatedTitle;
use Octavox\Core\Name\Direction;

/** How views say sizes, times and names: `$say` in each of them. */
final class ViewWords
{
    public function bytes(int|float $bytes): string
    {
        return Humanize::bytes($bytes);
    }

    public function language(string $letters): string
    {
        return Humanize::language($letters);
    }

    public function clock(?float $seconds): string
    {
        return Humanize::clock($seconds);
    }

    public function rate(?int $hertz): string
    {
        return Humanize::rate($hertz);
    }

    public function against(int $bytes, int $source): string
    {
        return Humanize::against($bytes, $source);
    }

    public function left(?float $seconds): string
    {
        return Humanize::left($seconds);
    }

    public function decibels(mixed $value, string $unit = ' dBFS'): string
    {
        return Humanize::decibels($value, $unit);
    }

    /** A name whose signs of direction turn nothing around it. */
    public function name(string $name): string
    {
        return Direction::shown($name);
    }

    /** Whether a name tells nothing of what is in its file. */
    public function isEmpty(string $name): bool
    {
        return PlainName::saysNothing($name);
    }

    public function disc(string $path): string
    {
        return StatedTitle::discName($path);
    }

    /** Whether so few letters are looked for that only the newest rows are looked through. */
    public function isShort(string $find): bool
    {
        return FoundNames::isShort($find);
    }

    /** @param  int  $moment  seconds since 1970 */
    public function ago(int $moment): string
    {
        return Carbon::createFromTimestamp($moment)->diffForHumans();
    }
}
