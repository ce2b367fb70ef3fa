<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\Destinations;
use Octavox\Core\Failure;

/** Lists the destinations that there are. */
final class DestinationsCommand implements Command
{
    public function __construct(private readonly Arguments $arguments, private readonly Output $output) {}

    /** @throws Failure */
    public function run(): int
    {
        if ($this->arguments->paths !== []) {
            throw Usage::value('destinations', $this->arguments->paths[0], 'nothing more; read PATH --for NAME asks one of them');
        }
        $all = array_values(Destinations::shipped());
        foreach ($all as $one) {
            $this->output->say(sprintf("%s  %s\n  %s", $one->name, $one->title, $one->note));
        }
        $this->output->document(['destinations' => array_map(fn (Destination $one): array => $one->toArray(), $all)]);

        return 0;
    }
}
