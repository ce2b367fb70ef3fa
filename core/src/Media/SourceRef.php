<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

use Octavox\Core\Json\Fields;
use Octavox\Core\Json\PathText;

/** Which recording is meant: a file, a title of a disc, or a folder that is one recording. Folders cannot be opened yet. */
final readonly class SourceRef
{
    /**
     * @param  string  $path  of the file, the disc image or the folder
     * @param  int  $bytes  its size when it was read; a source that changed since is refused
     * @param  ?string  $stated  what a file without a header holds, as somebody said it
     * @param  ?int  $title  number of the disc's title
     */
    private function __construct(public SourceKind $kind, public string $path, public int $bytes, public ?string $stated = null,
        public ?int $title = null) {}

    /** Of a title of a disc, `title:2` is stated. */
    public static function file(string $path, int $bytes, ?string $stated = null): self
    {
        return preg_match('/^title:(\d{1,2})$/', (string) $stated, $title) === 1 ? self::title($path, $bytes, (int) $title[1])
            : new self(SourceKind::File, $path, $bytes, $stated);
    }

    /** As what it is to be opened; null where it says itself what it is. */
    public function openedAs(): ?string
    {
        return $this->kind === SourceKind::Title ? 'title:'.$this->title : $this->stated;
    }

    public static function title(string $path, int $bytes, int $title): self
    {
        return new self(SourceKind::Title, $path, $bytes, null, $title);
    }

    public static function folder(string $path, int $bytes): self
    {
        return new self(SourceKind::Folder, $path, $bytes);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['kind' => $this->kind->value, 'path' => PathText::encode($this->path), 'bytes' => $this->bytes, 'stated' => $this->stated,
            'title' => $this->title];
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        $kind = SourceKind::tryFrom($fields->text('kind'))
            ?? throw new \UnexpectedValueException('A source is of a kind that is not known.');

        return new self($kind, $fields->text('path'), $fields->number('bytes'), $fields->textOrNull('stated'),
            $fields->isNull('title') ? null : $fields->number('title'));
    }
}
