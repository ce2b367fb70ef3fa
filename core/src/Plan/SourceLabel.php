<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

/** What a source is called and where it lay before it was brought in, where its own path does not say so. */
final readonly class SourceLabel
{
    /**
     * @param  ?string  $name  with extension; null where that of its path is meant
     * @param  ?string  $folder  its folders beneath what was brought in together, separated by slashes; null where nothing is known of it
     */
    public function __construct(public ?string $name = null, public ?string $folder = null) {}

    public function stem(string $path): string
    {
        return pathinfo($this->name ?? $path, PATHINFO_FILENAME);
    }

    public function folders(): string
    {
        return trim($this->folder ?? '', '/');
    }

    /** The innermost of its folders. */
    public function folder(string $path): string
    {
        return $this->folder === null ? basename(dirname($path)) : basename($this->folders());
    }
}
