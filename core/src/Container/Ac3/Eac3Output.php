<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ac3;

use Octavox\Core\Container\KeptOutput;
use Octavox\Core\Media\Codec;

/** E-AC-3 frames one after another. */
final class Eac3Output extends KeptOutput
{
    public function name(): string
    {
        return 'eac3';
    }

    public function label(): string
    {
        return 'E-AC-3';
    }

    public function extension(): string
    {
        return 'eac3';
    }

    protected function codecs(): array
    {
        return [Codec::Eac3];
    }

    protected function suits(): string
    {
        return 'copied untouched from a source that has it';
    }
}
