<?php

declare(strict_types=1);

namespace App\Sources\Recorders;

/** The moment that recorders write into the names of their files: year, month and day, then hours, minutes and mostly seconds. */
final class RecordedName
{
    /** Parted or not; the year with four digits, or with two as recorders for the pocket do. */
    private const FORMS = [
        '/(?<!\d)(20\d\d)[-_.]?(\d\d)[-_.]?(\d\d)[-_. T]{1,3}(\d\d)[-_.:hu]?(\d\d)(?:[-_.:m]?(\d\d))?(?!\d)/',
        '/(?<!\d)(\d\d)[-_.]?(\d\d)[-_.]?(\d\d)[-_ ](\d\d)(\d\d)(\d\d)?(?!\d)/',
        '/(?<!\d)(20\d\d)(\d\d)(\d\d)(\d\d)(\d\d)(\d\d)(?!\d)/',
    ];

    /** Null where the name tells none, or one that cannot be. */
    public static function moment(string $name): ?\DateTimeImmutable
    {
        foreach (self::FORMS as $form) {
            if (preg_match($form, pathinfo($name, PATHINFO_FILENAME), $found) !== 1) {
                continue;
            }
            [$year, $month, $day, $hour, $minute] = array_map(intval(...), array_slice($found, 1, 5));
            $second = (int) ($found[6] ?? 0);
            $year += $year < 100 ? 2000 : 0;
            if (checkdate($month, $day, $year) && $hour < 24 && $minute < 60 && $second < 60 && $year >= 2000) {
                return (new \DateTimeImmutable('today'))->setDate($year, $month, $day)->setTime($hour, $minute, $second);
            }
        }

        return null;
    }
}
