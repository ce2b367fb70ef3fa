<?php

declare(strict_types=1);

namespace App\Sources\Values;

use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Failure;

/** What the files of a recorder hold that writes no headers. */
final readonly class RecorderFormat
{
    /**
     * @param  string  $extension  of its files, in small letters
     * @param  string  $as  as {@see \Octavox\Core\Container\Raw\HeaderlessFormat} writes it
     */
    public function __construct(public string $extension, public string $as, public string $recorder) {}

    public function label(): string
    {
        try {
            return HeaderlessFormat::parse($this->as)->label();
        } catch (Failure) {
            return $this->as;
        }
    }
}
