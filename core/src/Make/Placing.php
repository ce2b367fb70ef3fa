<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Name\NumberedName;
use Octavox\Core\Plan\Plan;

/**
 * A finished file just before it gets its name: which file it is on the drive, and what became of its plan. By this it is found again by
 * whoever asked for it, even where the process that named it ended before it could tell.
 */
final readonly class Placing
{
    /** @param  array<array-key, mixed>  $result  as {@see Result::toArray()} gives it */
    private function __construct(private int $device, private int $inode, private array $result) {}

    /** @param  string  $temporary  path of the finished file */
    public static function of(string $temporary, Result $result): self
    {
        $facts = stat($temporary);

        return new self($facts['dev'] ?? 0, $facts['ino'] ?? 0, $result->toArray());
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['device' => $this->device, 'inode' => $this->inode, 'result' => $this->result];
    }

    /** @return ?self null where it is no such document */
    public static function parse(mixed $document): ?self
    {
        [$device, $inode, $result] = is_array($document)
            ? [$document['device'] ?? null, $document['inode'] ?? null, $document['result'] ?? null] : [null, null, null];

        return is_int($device) && is_int($inode) && is_array($result) ? new self($device, $inode, $result) : null;
    }

    /**
     * @return ?Result with the name that the file got; null where it got none
     *
     * @throws \UnexpectedValueException where the result that was noted is none
     */
    public function result(Plan $plan): ?Result
    {
        for ($number = 1; $number < Workplace::MOST_NUMBERS; $number++) {
            $path = $plan->target->named(NumberedName::write($plan->name(), $number))->path();
            clearstatcache(true, $path);
            $facts = @stat($path);
            if ($facts === false) {
                return null;
            }
            if ($facts['dev'] === $this->device && $facts['ino'] === $this->inode) {
                return Result::fromArray($plan, ['path' => $path] + $this->result);
            }
        }

        return null;
    }
}
