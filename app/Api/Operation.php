<?php

declare(strict_types=1);

namespace App\Api;

use App\Settings\Values\AccessScope;

/** One thing that a script can ask for. */
final readonly class Operation
{
    /**
     * @param  string  $path  below /api/v1, places in braces
     * @param  ?AccessScope  $scope  what a token must allow; null where none is needed
     * @param  list<string>  $parameters  of the query
     * @param  ?string  $body  schema of what is sent, or `bytes`
     * @param  array<int, string>  $answers  schema, `bytes`, `events` or nothing, by status
     */
    public function __construct(public string $method, public string $path, public ?AccessScope $scope, public string $summary,
        public array $parameters, public ?string $body, public array $answers) {}

    public function id(): string
    {
        return $this->method.'-'.trim((string) preg_replace('/[^a-z]+/', '-', $this->path), '-');
    }

    /** What it is about. */
    public function tag(): string
    {
        return preg_match('#^/([a-z]+)#', $this->path, $match) === 1 && $match[1] !== 'openapi' ? $match[1] : 'interface';
    }

    /** @return list<string> */
    public function places(): array
    {
        preg_match_all('/\{([a-z]+)\}/', $this->path, $places);

        return $places[1];
    }
}
