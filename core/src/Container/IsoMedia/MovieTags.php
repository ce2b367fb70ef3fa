<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Tag\Tags;

/** Tags of a movie, and what its gapless comment says. */
final readonly class MovieTags
{
    public function __construct(public Tags $tags, public ?GaplessComment $gapless) {}
}
