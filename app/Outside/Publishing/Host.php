<?php

declare(strict_types=1);

namespace App\Outside\Publishing;

use Octavox\Core\Failure;

/** A place where episodes are published. */
interface Host
{
    public function name(): string;

    public function title(): string;

    /**
     * Offers a file. What is refused changes nothing; the same one once more takes the place of itself.
     *
     * @param  string  $mark  by which it is known again
     *
     * @throws Failure where it cannot be read
     */
    public function offer(string $path, string $mark): Verdict;

    public function withdraw(string $guid): void;

    /** @return list<Episode> the newest first */
    public function episodes(): array;

    /**
     * The feed as it stands, RSS 2.0.
     *
     * @param  string  $base  address beneath which feed and episodes are served
     */
    public function feed(string $base): string;
}
