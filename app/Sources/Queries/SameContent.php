<?php

declare(strict_types=1);

namespace App\Sources\Queries;

use App\Processes\AskedChild;
use App\Sources\Models\Source;
use App\Sources\Values\SourceState;
use Octavox\Core\Failure;

/** A source of the same content that is on the list already: found by its mark, proven byte by byte. */
final class SameContent
{
    /** Without a word after which a comparison is given up. */
    private const SECONDS_SILENT = 600;

    /**
     * @param  ?string  $stated  as what the file was read
     * @param  string  $content  the mark of its content
     * @param  ?int  $before  only sources with a lower number
     *
     * @throws Failure where one of the files cannot be read
     */
    public function find(string $path, ?string $stated, string $content, string $log, ?int $before = null): ?Source
    {
        /** @var list<Source> $others */
        $others = $content === '' ? [] : Source::query()->where('content', $content)->where('state', SourceState::Ready)
            ->when($before !== null, fn ($query) => $query->where('id', '<', $before))
            ->orderBy('id')->get(['id', 'name', 'path', 'stated'])->all();
        foreach ($others as $other) {
            if (! is_file($other->path)) {
                continue;
            }
            $answer = (new AskedChild('same', null, self::SECONDS_SILENT))->answer(['path' => $path,
                'stated' => $stated, 'other' => $other->path, 'other_stated' => $other->stated], $path, $log);
            if (($answer['same'] ?? false) === true) {
                return $other;
            }
        }

        return null;
    }
}
