<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Failure;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SpecInvalid;

/**
 * Tags that a file tells, for all recordings or for each by its name: a JSON object of fields, or a list of such with `path`; or CSV whose
 * first line names the fields, `path` among them.
 */
final readonly class TagList
{
    private const MOST_BYTES = 16 << 20;

    /**
     * @param  array<string, string|list<string>|null>  $all  for every recording
     * @param  array<string, array<string, string|list<string>|null>>  $each  by the name of the recording, or the end of its path
     */
    private function __construct(private array $all, private array $each) {}

    public static function none(): self
    {
        return new self([], []);
    }

    /**
     * @throws Usage where there is no such file
     * @throws Failure where it cannot be understood, with the field
     */
    public static function read(string $path): self
    {
        $text = is_file($path) ? @file_get_contents($path, length: self::MOST_BYTES) : false;
        if ($text === false) {
            throw Usage::value('--tags', $path, 'the path of a file that can be read: JSON or CSV');
        }
        $document = json_decode($text, true, 16);

        return is_array($document) ? self::ofDocument($path, $document) : self::ofTable($path, $text);
    }

    /** @return ?array<string, string|list<string>|null> as a spec takes them; null where nothing is said of this recording */
    public function for(string $path): ?array
    {
        $own = [];
        foreach ($this->each as $name => $tags) {
            if ($path === $name || str_ends_with($path, '/'.ltrim($name, './'))) {
                $own = $tags + $own;
            }
        }
        $tags = $own + $this->all;

        return $tags === [] ? null : $tags;
    }

    /**
     * @param  array<array-key, mixed>  $document
     *
     * @throws Usage
     */
    private static function ofDocument(string $path, array $document): self
    {
        if (! array_is_list($document)) {
            return new self(self::tags($path, $document), []);
        }
        $each = [];
        foreach ($document as $one) {
            if (! is_array($one) || ! is_string($one['path'] ?? null)) {
                throw Usage::value('--tags', $path, 'a list of objects, each with the path of its recording');
            }
            $each[$one['path']] = self::tags($path, array_diff_key($one, ['path' => null]));
        }

        return new self([], $each);
    }

    /**
     * Parted by commas, semicolons or tabs, whichever the first line has most of; an empty cell says nothing.
     *
     * @throws Usage
     */
    private static function ofTable(string $path, string $text): self
    {
        $lines = fopen('php://memory', 'r+b') ?: throw Usage::value('--tags', $path, 'a file that fits into memory');
        fwrite($lines, str_starts_with($text, "\xEF\xBB\xBF") ? substr($text, 3) : $text);
        rewind($lines);
        $first = (string) strtok($text, "\r\n");
        $counts = array_combine([',', ';', "\t"], array_map(fn (string $sign): int => substr_count($first, $sign), [',', ';', "\t"]));
        arsort($counts);
        $sign = (string) array_key_first($counts);
        $fields = array_map(fn (?string $one): string => strtolower(trim((string) $one)), fgetcsv($lines, null, $sign, '"', '') ?: []);
        $place = array_search('path', $fields, true);
        if (! is_int($place)) {
            throw Usage::value('--tags', $path, 'JSON, or CSV whose first line names the fields, path among them');
        }
        $each = [];
        while (is_array($row = fgetcsv($lines, null, $sign, '"', ''))) {
            $name = trim((string) ($row[$place] ?? ''));
            $tags = [];
            foreach ($fields as $column => $field) {
                $value = trim((string) ($row[$column] ?? ''));
                if ($column !== $place && $field !== '' && $value !== '') {
                    $tags[$field] = $value;
                }
            }
            $each += $name === '' ? [] : [$name => self::tags($path, $tags)];
        }

        return new self([], $each);
    }

    /**
     * @param  array<array-key, mixed>  $tags
     * @return array<string, string|list<string>|null>
     *
     * @throws Usage
     */
    private static function tags(string $path, array $tags): array
    {
        try {
            return OutputSpec::fromArray(['version' => OutputSpec::VERSION, 'tags' => $tags])->tags ?? [];
        } catch (SpecInvalid $wrong) {
            throw Usage::value('--tags', $path, 'understood: '.$wrong->getMessage());
        }
    }
}
