<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Failure;
use Octavox\Core\Make\Comparison;

/** Says whether two files hold the same sound. */
final class CompareCommand implements Command
{
    public function __construct(private readonly Arguments $arguments, private readonly Output $output) {}

    /**
     * @throws Usage
     * @throws Failure
     */
    public function run(): int
    {
        if (count($this->arguments->paths) !== 2) {
            throw Usage::missing('The paths of two files');
        }
        $comparison = Comparison::of($this->arguments->paths[0], $this->arguments->paths[1]);
        $this->output->document($comparison->toArray());
        $this->output->say($comparison->describe());

        return 0;
    }
}
