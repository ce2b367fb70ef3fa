<?php

declare(strict_types=1);

namespace App\Lists;

use App\Orders\Values\SpecForm;

/** What can be pressed beside something that stands in the way. */
final readonly class Remedy
{
    /** @param  array<string, string>  $fields  of {@see SpecForm} that it fills in */
    public function __construct(public string $label, public array $fields) {}

    /** The fields as a page sends them back. */
    public function written(): string
    {
        return (string) json_encode($this->fields);
    }
}
