<?php

declare(strict_types=1);

namespace App\Work;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/** Who works on which row: no row is held by two, whatever processes and machines they are on. */
interface Claims
{
    /**
     * Takes the first of the rows that nobody holds, in one statement.
     *
     * @template T of Model
     *
     * @param  Builder<T>  $rows  those that wait, in their order
     * @param  string  $number  the column, with its table, that tells them apart
     * @return ?Claim null where there is none
     */
    public function take(WorkKind $kind, Builder $rows, string $number): ?Claim;

    /** Shows that its worker still works; to be called at least twice a minute. */
    public function sign(Claim $claim): void;

    /** The row is done with, whatever became of it. */
    public function end(Claim $claim): void;

    /** Another worker may take the row. */
    public function giveBack(Claim $claim, bool $isAttempt): void;

    /** Gives back what workers hold that have died or gave no sign for long. */
    public function releaseDead(): void;

    /** Nobody works: gives everything back. */
    public function releaseAll(): void;

    /**
     * Leaves of the rows those that nobody holds.
     *
     * @template T of Model
     *
     * @param  Builder<T>  $rows
     * @return Builder<T>
     */
    public function unheld(WorkKind $kind, Builder $rows, string $number): Builder;
}
