<?php

declare(strict_types=1);

namespace App\Outside\Catalogue;

use Octavox\Core\Failure;

/** The catalogue gave no answer that can be used. */
final class CatalogueFailed extends Failure
{
    public static function offline(): self
    {
        return new self('The catalogue does not answer. Nothing was changed; try again later, or fill the tags in by hand.');
    }

    public static function strange(): self
    {
        return new self('The catalogue gave an answer that cannot be understood, so nothing was taken from it. Nothing was changed.');
    }

    public function code(): string
    {
        return 'catalogue';
    }
}
