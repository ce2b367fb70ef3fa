<?php

declare(strict_types=1);

namespace App\Sources\Queries;

use App\Processes\DecodersFile;
use App\Sources\Models\Source;
use App\Sources\Values\SourceState;
use Illuminate\Support\Facades\File;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\OutsideDecoders;
use Octavox\Core\Media\Codec;

/** The programs that the owner named as decoders, in a file that every process reads. */
final class Decoders
{
    /** The newest sources that are looked at for the name of a codec that has none here. */
    private const MOST_SOURCES = 500;

    /** @return array<string, string> commands by codec */
    public function all(): array
    {
        $document = is_file(DecodersFile::path()) ? json_decode((string) file_get_contents(DecodersFile::path()), true) : [];

        return is_array($document) ? array_filter($document, fn (mixed $command, int|string $codec): bool => is_string($command)
            && is_string($codec), ARRAY_FILTER_USE_BOTH) : [];
    }

    /** @param  string  $command  empty takes it away */
    public function set(string $codec, string $command): void
    {
        $all = $this->all();
        unset($all[$codec]);
        File::replace(DecodersFile::path(), json_encode((object) ($command === '' ? $all : $all + [$codec => $command]),
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_PRETTY_PRINT), 0600);
    }

    /** Whether sound can be called so: a codec that has a name here, a form of WAV, or what a source on the list holds. */
    public function isCodec(string $name): bool
    {
        $codec = Codec::tryFrom($name);
        if ($codec !== null && CodecModules::of($codec)->isSound() || preg_match('/^form 0x[0-9a-f]{4}$/', $name) === 1) {
            return true;
        }
        /** @var list<Source> $undecodable */
        $undecodable = Source::everyOne()->where('state', SourceState::Ready)
            ->where('reading', 'like', '%"codec-not-decodable"%')
            ->orderByDesc('id')->limit(self::MOST_SOURCES)->get()->all();
        foreach ($undecodable as $source) {
            foreach ($source->facts()->tracks ?? [] as $track) {
                if ($track->sound?->codecKey() === $name) {
                    return true;
                }
            }
        }

        return false;
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
