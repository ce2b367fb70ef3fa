<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Dts;

use Octavox\Core\Container\KeptOutput;
use Octavox\Core\Media\Codec;

/** DTS frames one after another. */
final class DtsOutput extends KeptOutput
{
    public function name(): string
    {
        return 'dts';
    }

    public function label(): string
    {
        return 'DTS';
    }

    public function extension(): string
    {
        return 'dts';
    }

    protected function codecs(): array
    {
        return [Codec::Dts];
    }

    protected function suits(): string
    {
        return 'copied untouched from a source that has it';
    }
}
