<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Failure;

/** Either lines for people, or one JSON document for programs. */
final class Output
{
    /** Status of a program whose reader went away: 128 and the number of SIGPIPE, as shells tell it. */
    public const PIPE_CLOSED = 141;

    private const JSON = JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE
        | JSON_PRESERVE_ZERO_FRACTION;

    private static bool $isClosed = false;

    public function __construct(private readonly bool $json) {}

    /** Whether nobody reads any more. */
    public function isClosed(): bool
    {
        return self::$isClosed;
    }

    /** Only where no JSON is wanted. */
    public function say(string $text): void
    {
        if (! $this->json) {
            self::print($text);
        }
    }

    /**
     * Only where JSON is wanted.
     *
     * @param  array<string, mixed>  $document
     */
    public function document(array $document): void
    {
        if ($this->json) {
            self::print(json_encode($document, self::JSON | JSON_PRETTY_PRINT));
        }
    }

    /**
     * Only where JSON is wanted: a document of which more follow, each on a line of its own.
     *
     * @param  array<string, mixed>  $document
     */
    public function line(array $document): void
    {
        if ($this->json) {
            self::print(json_encode($document, self::JSON));
        }
    }

    public function error(Failure $failure, ?string $path = null): void
    {
        $this->document(['error' => ['code' => $failure->code(), 'message' => $failure->getMessage(), 'path' => $path ?? $failure->path]]);
    }

    /** Whoever reads may have gone away meanwhile, which is no trouble of ours. */
    private static function print(string $text): void
    {
        $line = $text."\n";
        self::$isClosed = self::$isClosed || @fwrite(STDOUT, $line) !== strlen($line);
    }

    /** h:mm:ss.mmm */
    public static function clock(float $seconds): string
    {
        $milliseconds = (int) round($seconds * 1000);

        return sprintf('%d:%02d:%02d.%03d', intdiv($milliseconds, 3_600_000), intdiv($milliseconds, 60_000) % 60,
            intdiv($milliseconds, 1000) % 60, $milliseconds % 1000);
    }
}
