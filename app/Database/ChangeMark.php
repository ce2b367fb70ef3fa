<?php

declare(strict_types=1);

namespace App\Database;

use Illuminate\Support\Facades\DB;

/** A number that grows with every change of something, counted by the database itself. */
final class ChangeMark
{
    /** @param  string  $what  `work` or `sources` */
    public function read(string $what): int
    {
        $number = DB::table('changes')->where('what', $what)->value('number');

        return is_int($number) ? $number : 0;
    }
}
