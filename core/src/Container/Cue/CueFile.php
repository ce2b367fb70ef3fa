<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Cue;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\JoinedBytes;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Described;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\DiscTrack;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** The sound of a disc, out of one file or of several that follow each other, with a chapter for each track. */
final class CueFile implements Demuxer
{
    use Described;

    /**
     * @param  list<Demuxer>  $parts
     * @param  list<int>  $begins  of each part, in samples of the whole
     * @param  list<Track>  $tracks
     * @param  list<Chapter>  $chapters
     * @param  list<Diagnostic>  $diagnostics
     */
    private function __construct(private readonly ByteSource $bytes, private readonly array $parts, private readonly array $begins,
        private readonly array $tracks, private readonly Tags $tags, private readonly array $chapters,
        private readonly array $diagnostics) {}

    /**
     * @param  list<Demuxer>  $parts  the files that the sheet names
     *
     * @throws SheetUnusable
     * @throws BytesMissing
     */
    public static function of(ByteSource $bytes, CueSheet $sheet, array $parts): self
    {
        $first = ($parts[0] ?? null)?->tracks()[0] ?? null;
        $sound = $first?->sound;
        if ($first === null || $sound === null) {
            throw SheetUnusable::differing($bytes->name());
        }
        $begins = [];
        $samples = $coded = 0;
        foreach ($parts as $part) {
            $track = $part->tracks()[0] ?? null;
            $isAlike = $track?->sound !== null && count($part->tracks()) === 1 && $track->sound->rate === $sound->rate
                && $track->sound->channels() === $sound->channels() && $track->sound->codec === $sound->codec
                && ($sound->pcm === null ? $track->sound->pcm === null : $track->sound->pcm !== null
                    && $track->sound->pcm->equals($sound->pcm));
            // Only what needs nothing of the samples before can be read on from file to file.
            if (! $isAlike || count($parts) > 1 && $sound->codec !== Codec::Pcm) {
                throw SheetUnusable::differing($bytes->name());
            }
            $begins[] = $samples;
            $samples += $track->timeline->samples();
            $coded += $track->codedBytes;
        }
        $track = count($parts) === 1 ? $first : Track::sound($first->number, $sound, Timeline::plain($samples), $coded);
        $chapters = self::chaptersOf($sheet, $begins, max(1, $sound->rate));
        $within = array_values(array_filter($chapters, fn (Chapter $one): bool => $one->starts * $sound->rate < $samples));

        return new self(self::together($bytes, $parts), $parts, $begins, [$track], self::words($sheet, $parts[0]->tags()), $within,
            array_merge(...array_map(fn (Demuxer $part): array => $part->diagnostics(), $parts)));
    }

    /**
     * The sheet and then its files as one, so that the size is that of all, and another image behind the same words is another source.
     *
     * @param  list<Demuxer>  $parts
     *
     * @throws BytesMissing
     */
    private static function together(ByteSource $sheet, array $parts): JoinedBytes
    {
        return new JoinedBytes($sheet->name(), array_map(fn (ByteSource $one): Stretch => Stretch::in($one, 0, $one->size()),
            [$sheet, ...array_map(fn (Demuxer $part): ByteSource => $part->source(), $parts)]));
    }

    public function container(): string
    {
        return 'cue';
    }

    public function chapters(): array
    {
        return $this->chapters;
    }

    public function packets(Track $track, int $from, int $until): iterable
    {
        if (count($this->parts) === 1) {
            return yield from $this->parts[0]->packets($track, $from, $until);
        }
        foreach ($this->parts as $index => $part) {
            $own = $part->tracks()[0];
            $begin = $this->begins[$index];
            [$first, $last] = [max(0, $from - $begin), min($own->timeline->samples(), $until - $begin)];
            foreach ($first < $last ? $part->packets($own, $first, $last) : [] as $packet) {
                yield new Packet($packet->data, $packet->start + $begin, $packet->length, $packet->config);
            }
        }
    }

    /**
     * @param  list<int>  $begins
     * @return list<Chapter>
     */
    private static function chaptersOf(CueSheet $sheet, array $begins, int $rate): array
    {
        $seconds = fn (int $file, int $frames): float => ($begins[$file] ?? 0) / $rate + $frames / CueSheet::FRAMES;
        $chapters = [];
        foreach ($sheet->tracks as $index => $track) {
            $gap = ($sheet->tracks[$index + 1] ?? null)?->gap;
            $starts = $seconds($track->file, $track->frames);
            $ends = $gap === null ? null : $seconds(...$gap);
            $chapters[] = new Chapter($starts, $track->heading($sheet->performer), new DiscTrack($track->number, $track->title,
                $track->performer === $sheet->performer ? '' : $track->performer, $track->isrc,
                $ends !== null && $ends > $starts ? $ends : null, $track->isEmphasised));
        }

        return $chapters;
    }

    private static function words(CueSheet $sheet, Tags $own): Tags
    {
        foreach ([[TagField::Album, $sheet->title], [TagField::AlbumArtist, $sheet->performer], [TagField::Artist, $sheet->performer],
            [TagField::Composer, $sheet->songwriter], [TagField::Genre, $sheet->genre],
            [TagField::Year, $sheet->date]] as [$field, $value]) {
            $own = $value === '' ? $own : $own->with($field, $value);
        }

        return $sheet->catalog === '' ? $own : $own->withFree('BARCODE', $sheet->catalog);
    }
}
