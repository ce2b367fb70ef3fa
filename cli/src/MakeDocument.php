<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Failure;
use Octavox\Core\Make\Result;
use Octavox\Core\Plan\PlanDocument;
use Octavox\Core\Sound\InvalidLevel;

/** One entry of what `make --json` prints. */
final class MakeDocument
{
    /**
     * @return array<string, mixed>
     *
     * @throws InvalidLevel
     */
    public static function made(Result $result): array
    {
        return [...PlanDocument::write($result->plan),
            'path' => $result->path,
            'state' => $result->isSkipped() ? 'skipped' : 'done',
            'samples' => $result->receipt->samples ?? $result->plan->length(),
            'bytes' => $result->receipt?->bytes,
            'seconds' => round($result->seconds(), 6),
            'took' => round($result->took, 3),
            'receipt' => $result->receipt?->toArray(),
            'error' => null,
        ];
    }

    /** @return array<string, mixed> */
    public static function failed(string $path, Failure $failure): array
    {
        return ['source' => $path, 'path' => null, 'state' => 'failed',
            'error' => ['code' => $failure->code(), 'message' => $failure->getMessage(), 'path' => $path]];
    }
}
