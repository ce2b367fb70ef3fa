<?php

declare(strict_types=1);

// Tells what is on a disc: JSON {path} on the standard input; answers with the titles of a video disc or the tracks of an audio disc.

use Octavox\Core\Json\Fields;
use Octavox\Core\Parallel\ChildScript;
use Octavox\Core\Reading\DiscContents;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

exit(ChildScript::run(fn (Fields $asked): array => DiscContents::of($asked->text('path'))->toArray()));
