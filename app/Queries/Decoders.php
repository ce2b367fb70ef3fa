<?php

declare(strict_types=1);

namespace App\Queries;

use Illuminate\Support\Facades\File;
use Octavox\Core\Codec\OutsideDecoders;

/** The programs that the owner named as decoders, in a file that every process reads. */
final class Decoders
{
    public static function path(): string
    {
        return config()->string('octavox.home').'/decoders.json';
    }

    /** @return array<string, string> commands by codec */
    public function all(): array
    {
        $document = is_file(self::path()) ? json_decode((string) file_get_contents(self::path()), true) : [];

        return is_array($document) ? array_filter($document, fn (mixed $command, int|string $codec): bool => is_string($command)
            && is_string($codec), ARRAY_FILTER_USE_BOTH) : [];
    }

    /** @param  string  $command  empty takes it away */
    public function set(string $codec, string $command): void
    {
        $all = $this->all();
        unset($all[$codec]);
        File::replace(self::path(), json_encode((object) ($command === '' ? $all : $all + [$codec => $command]),
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_PRETTY_PRINT), 0600);
    }

    /** Whether a program of a command is there. */
    public function isThere(string $command): bool
    {
        $program = OutsideDecoders::words($command)[0] ?? '';
        $folders = str_contains($program, '/') ? ['']
            : array_map(fn (string $one): string => $one.'/', explode(':', (string) getenv('PATH')));

        return $program !== '' && array_filter($folders, fn (string $folder): bool => is_executable($folder.$program)
            && is_file($folder.$program)) !== [];
    }
}
