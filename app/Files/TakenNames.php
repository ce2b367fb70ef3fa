<?php

declare(strict_types=1);

namespace App\Files;

use Octavox\Core\Name\NumberedName;

/** Gives each file of an archive or a folder that is written a name that no other has. */
final class TakenNames
{
    /** @var array<string, true> */
    private array $taken = [];

    /** @return string the wanted name, with a number where it is taken */
    public function free(string $wanted): string
    {
        for ($number = 1; isset($this->taken[mb_strtolower(NumberedName::write($wanted, $number))]); $number++);
        $name = NumberedName::write($wanted, $number);
        $this->taken[mb_strtolower($name)] = true;

        return $name;
    }
}
