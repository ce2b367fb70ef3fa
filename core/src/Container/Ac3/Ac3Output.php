<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ac3;

use Octavox\Core\Container\KeptOutput;
use Octavox\Core\Media\Codec;

/** AC-3 frames one after another. */
final class Ac3Output extends KeptOutput
{
    public function name(): string
    {
        return 'ac3';
    }

    public function label(): string
    {
        return 'AC-3';
    }

    public function extension(): string
    {
        return 'ac3';
    }

    protected function codecs(): array
    {
        return [Codec::Ac3];
    }

    protected function suits(): string
    {
        return 'copied untouched from a source that has it';
    }
}
