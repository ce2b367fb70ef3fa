<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\Destinations;
use Octavox\Core\Failure;
use Octavox\Core\Order\Recipe;
use Octavox\Core\Order\Recipes;

/** Lists the destinations, or the recipes, that there are. */
final class ListCommand implements Command
{
    /** @param  string  $kind  `destinations` or `recipes` */
    public function __construct(private readonly string $kind, private readonly Arguments $arguments, private readonly Output $output) {}

    /** @throws Failure */
    public function run(): int
    {
        if ($this->arguments->paths !== []) {
            throw Usage::value($this->kind, $this->arguments->paths[0], $this->kind === 'recipes'
                ? 'nothing more; make PATH --recipe NAME uses one of them' : 'nothing more; read PATH --for NAME asks one of them');
        }
        $all = array_values($this->kind === 'recipes' ? Recipes::all(Home::path('recipes'))
            : Destinations::all(Home::path('destinations')));
        foreach ($all as $one) {
            $this->output->say(sprintf("%s  %s\n  %s", $one->name, $one->title, $one->note));
        }
        $this->output->document([$this->kind => array_map(fn (Destination|Recipe $one): array => $one->toArray(), $all)]);

        return 0;
    }
}
