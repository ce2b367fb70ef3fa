<?php

declare(strict_types=1);

namespace App\Database;

/**
 * SQLite whose transactions take the right to write when they begin, so that waiting for another writer works:
 * one that begins as a reader is refused at once when it wants to write and somebody else has written since.
 */
final class ImmediatePdo extends \PDO
{
    private bool $within = false;

    public function beginTransaction(): bool
    {
        $this->exec('BEGIN IMMEDIATE TRANSACTION');

        return $this->within = true;
    }

    public function commit(): bool
    {
        $this->exec('COMMIT');
        $this->within = false;

        return true;
    }

    public function rollBack(): bool
    {
        $this->within = false;
        $this->exec('ROLLBACK');

        return true;
    }

    public function inTransaction(): bool
    {
        return $this->within;
    }
}
