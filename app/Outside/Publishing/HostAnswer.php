<?php

declare(strict_types=1);

namespace App\Outside\Publishing;

/** What a host answered to one result. */
final readonly class HostAnswer
{
    /** @param  list<string>  $reasons  why it is refused; none where it is published */
    public function __construct(public string $name, public string $host, public array $reasons) {}
}
