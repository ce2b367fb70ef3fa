<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Cue;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\Containers;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Failure;

/** A CUE sheet with the files that it names: an audio disc as an image, or one long recording with marks. */
final class CueFormat implements Format
{
    public const MOST_FILES = 99;

    /** What each track of an audio disc holds: IEC 60908, 16 bits, 44,100 Hz, two channels. */
    private const DISC = ['BINARY' => 'pcm16:44100:2', 'MOTOROLA' => 'pcm16big:44100:2'];

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() <= CueSheet::MOST_BYTES && $bytes->size() > 20
            && CueSheet::isOne($bytes->read(0, min($bytes->size(), 65_536)));
    }

    /** @throws Failure */
    public function open(ByteSource $bytes): Demuxer
    {
        $sheet = CueSheet::parse($bytes->read(0, $bytes->size()));
        if ($sheet->hasData) {
            throw SheetUnusable::data($bytes->name());
        }
        if ($sheet->tracks === []) {
            throw SheetUnusable::noStarts($bytes->name());
        }
        $names = @scandir(dirname($bytes->name())) ?: [];
        if ($sheet->textFile !== '') {
            $this->addText($sheet, $bytes->name(), $names);
        }
        $parts = [];
        foreach (array_slice($sheet->files, 0, self::MOST_FILES) as [$name, $kind]) {
            $parts[] = Containers::openFile($this->beside($bytes->name(), $name, $kind, $names), isset(self::DISC[$kind])
                ? HeaderlessFormat::parse(self::DISC[$kind]) : null);
        }

        return CueFile::of($bytes, $sheet, $parts);
    }

    /**
     * The disc's own text; a file of it that is not there, or is none, changes nothing.
     *
     * @param  list<string>  $names  what lies beside the sheet
     */
    private function addText(CueSheet $sheet, string $path, array $names): void
    {
        try {
            $text = FileBytes::open($this->beside($path, $sheet->textFile, 'BINARY', $names));
            DiscText::into($sheet, $text->read(0, min($text->size(), CueSheet::MOST_BYTES)));
        } catch (Failure) {
            // The sheet says enough without it.
        }
    }

    /**
     * @param  list<string>  $names  what lies beside the sheet
     *
     * @throws SheetUnusable
     */
    private function beside(string $sheet, string $name, string $kind, array $names): string
    {
        $file = basename(str_replace('\\', '/', $name));
        if (str_contains($name, "\0") || in_array($file, ['', '.', '..'], true) || str_contains(str_replace('\\', '/', $name), '../')) {
            throw SheetUnusable::outside($sheet, $name);
        }
        $meant = SheetFiles::meant($name, $kind, $names);
        $path = dirname($sheet).'/'.$meant;

        return $meant !== null && is_file($path) ? $path : throw SheetUnusable::missing($sheet, $file);
    }
}
