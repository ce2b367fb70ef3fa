<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Tag\Chapter;

/** Chapters as a hidden text track that another track refers to: QuickTime File Format Specification, "Chapter Lists". */
final class ChapterTrack
{
    /** Room in the index for each. */
    public const INDEX_BYTES = 200;

    private const TIMES_A_SECOND = 1000;

    private const MOST_BYTES = 1000;

    public readonly StreamTrack $track;

    /**
     * @param  non-empty-list<Chapter>  $chapters
     * @param  float  $seconds  at which the last ends
     */
    public function __construct(private readonly array $chapters, private readonly float $seconds)
    {
        $this->track = new StreamTrack('text', PictureEntry::text(), self::TIMES_A_SECOND, hidden: true);
    }

    /**
     * @param  int  $number  of the track within the movie, from 0 on
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function write(MovieStream $movie, int $number): void
    {
        $at = $this->ticks($this->chapters[0]->starts);
        if ($at > 0) {
            $movie->write($number, self::text(''), $at);
        }
        foreach ($this->chapters as $index => $chapter) {
            $until = max($at + 1, $this->ticks($this->chapters[$index + 1]->starts ?? $this->seconds));
            $movie->write($number, self::text($chapter->title), $until - $at);
            $at = $until;
        }
    }

    private function ticks(float $seconds): int
    {
        return (int) round($seconds * self::TIMES_A_SECOND);
    }

    /** "Text Sample Data": a length, the text, and a mark that it is UTF-8. */
    private static function text(string $title): string
    {
        $title = mb_strcut($title, 0, self::MOST_BYTES, 'UTF-8');

        return pack('n', strlen($title)).$title.pack('N', 12).'encd'.pack('N', 0x100);
    }
}
