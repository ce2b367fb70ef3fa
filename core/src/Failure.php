<?php

declare(strict_types=1);

namespace Octavox\Core;

/**
 * Something that went wrong in a way a person can be told about.
 *
 * Every failure has its own class, a short stable code for programs and one sentence for people
 * that says what happened, what it means and what to do.
 */
abstract class Failure extends \RuntimeException
{
    final public function __construct(string $sentence, public readonly ?string $path = null, ?\Throwable $previous = null)
    {
        parent::__construct($sentence, 0, $previous);
    }

    /** Short, stable, lower-case word for programs, such as `index-missing`. */
    abstract public function code(): string;
}
