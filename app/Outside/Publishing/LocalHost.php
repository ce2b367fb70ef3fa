<?php

declare(strict_types=1);

namespace App\Outside\Publishing;

use App\Files\Folder;
use App\Files\MediaType;
use App\Processes\AskedChild;
use Illuminate\Support\Facades\File;
use Octavox\Core\Json\Fields;

/** Stands for a host: a folder with a description, `host.json`, in which episodes lie; its feed is made of them. */
final class LocalHost implements Host
{
    public const DESCRIPTION = 'host.json';

    private const EPISODES = 'episodes.json';

    private const MOST_BYTES = 500_000_000;

    private const SECONDS_SILENT = 120;

    private function __construct(private readonly string $name, private readonly string $folder, private readonly ?Show $show) {}

    /** Null where a folder is none. */
    public static function in(string $folder): ?self
    {
        return ! is_file($folder.'/'.self::DESCRIPTION) ? null : new self(basename($folder), $folder,
            Show::read((string) @file_get_contents($folder.'/'.self::DESCRIPTION), 'host'));
    }

    public function name(): string
    {
        return $this->name;
    }

    public function title(): string
    {
        return $this->show->title ?? $this->name;
    }

    public function offer(string $path, string $mark): Verdict
    {
        if ($this->show === null) {
            return Verdict::refused(['The description of this host cannot be read, so it takes nothing.']);
        }
        if (filesize($path) > self::MOST_BYTES) {
            return Verdict::refused([sprintf('The file is larger than the %d MB that an episode may have.', self::MOST_BYTES / 1_000_000)]);
        }
        $answer = new Fields((new AskedChild('fit', null, self::SECONDS_SILENT))->answer(['path' => $path,
            'destination' => $this->show->destination->toArray()], $path, 'host.log'));
        $reasons = array_values(array_filter($answer->list('refusals'), is_string(...)));
        if ($reasons !== []) {
            return Verdict::refused($reasons);
        }
        $episode = $this->newEpisode($path, $mark, $answer);
        File::copy($path, $this->folder.'/.'.$episode->file.'.part');
        File::move($this->folder.'/.'.$episode->file.'.part', $this->folder.'/'.$episode->file);
        $this->keep([$episode, ...array_filter($this->episodes(), fn (Episode $one): bool => $one->guid !== $episode->guid)]);

        return Verdict::accepted($episode);
    }

    public function withdraw(string $guid): void
    {
        foreach ($this->episodes() as $episode) {
            if ($episode->guid === $guid) {
                $this->keep(array_values(array_filter($this->episodes(), fn (Episode $one): bool => $one->guid !== $guid)));
                File::delete($this->folder.'/'.$episode->file);
            }
        }
    }

    public function episodes(): array
    {
        $document = json_decode((string) @file_get_contents($this->folder.'/'.self::EPISODES), true);
        $episodes = [];
        foreach (is_array($document) ? $document : [] as $one) {
            try {
                $episodes[] = Episode::fromFields(new Fields(is_array($one) ? $one : []));
            } catch (\UnexpectedValueException) {
                // What is damaged is no episode.
                continue;
            }
        }
        usort($episodes, fn (Episode $one, Episode $other): int => [$other->published, $other->guid] <=> [$one->published, $one->guid]);

        return $episodes;
    }

    public function feed(string $base): string
    {
        return $this->show === null ? '' : Feed::write($this->show, $this->episodes(), $base);
    }

    /** The episode whose file is called so; null where there is none. */
    public function episode(string $file): ?Episode
    {
        return array_values(array_filter($this->episodes(), fn (Episode $one): bool => $one->file === $file))[0] ?? null;
    }

    /** Where its file lies; null where that is a link, or no file. */
    public function path(Episode $episode): ?string
    {
        $path = $this->folder.'/'.$episode->file;

        return is_link($path) || ! is_file($path) ? null : $path;
    }

    private function newEpisode(string $path, string $mark, Fields $facts): Episode
    {
        $tags = $facts->optional('tags')?->all() ?? [];
        $tag = function (string $name) use ($tags): string {
            $value = $tags[$name] ?? null;

            return is_string($value) ? $value : '';
        };
        $guid = substr(hash('sha256', $this->name."\0".$mark), 0, 32);
        $before = array_values(array_filter($this->episodes(), fn (Episode $one): bool => $one->guid === $guid))[0] ?? null;

        return new Episode($guid, $guid.'.'.strtolower(pathinfo($path, PATHINFO_EXTENSION)),
            $tag('title') === '' ? pathinfo($path, PATHINFO_FILENAME) : $tag('title'), $tag('comment') ?: $tag('album'),
            $facts->float('seconds'),
            (int) filesize($path), MediaType::name($facts->text('container'), false), $before->published ?? time());
    }

    /** @param  array<int, Episode>  $episodes */
    private function keep(array $episodes): void
    {
        Folder::write($this->folder.'/'.self::EPISODES, json_encode(array_map(fn (Episode $one): array => $one->toArray(),
            array_values($episodes)), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE));
    }
}
