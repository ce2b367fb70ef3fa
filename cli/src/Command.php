<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Failure;

/** One command of `./octavox`. */
interface Command
{
    /**
     * @return int exit status: 0 all well, 1 something failed
     *
     * @throws Failure
     */
    public function run(): int;
}
