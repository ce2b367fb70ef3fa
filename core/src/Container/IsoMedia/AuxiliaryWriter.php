<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Container\Video\AuxiliarySample;
use Octavox\Core\Container\Video\AuxiliaryTrack;
use Octavox\Core\Container\Video\SubtitleText;

/**
 * Subtitles or a time code as a track of a movie: as they came, or plain text coded anew.
 * Samples follow each other without gaps here: where nothing is shown stands an empty one.
 */
final class AuxiliaryWriter
{
    /** Seconds that a text stays whose end is not told. */
    private const STAYS = 3;

    private ?AuxiliarySample $held = null;

    private int $written = 0;

    /** Ticks before the first sample. */
    private int $late = 0;

    private function __construct(private readonly AuxiliaryTrack $auxiliary, private readonly bool $coded,
        public readonly StreamTrack $track) {}

    public static function of(AuxiliaryTrack $auxiliary, bool $quickTime, int $width, int $height): self
    {
        $language = $auxiliary->language ?? 'und';
        $timecode = $auxiliary->coding === 'tmcd';
        if ($auxiliary->handler !== '') {
            return new self($auxiliary, false,
                new StreamTrack($auxiliary->handler, $auxiliary->description, $auxiliary->timescale, 0, $timecode ? 0 : $width,
                    $timecode ? 0 : $height, $language, '', $auxiliary->name, hidden: $timecode, header: $auxiliary->header));
        }

        // 3GPP TS 26.245, 5.1 has the handler `text` and no media header of its own; QuickTime calls it `sbtl`.
        return new self($auxiliary, true, new StreamTrack($quickTime ? 'sbtl' : 'text', self::timedText(), $auxiliary->timescale, 0, $width,
            $height, $language, '', $auxiliary->name, header: $quickTime
            ? Boxes::box('gmhd', Boxes::full('gmin', 0, 0, pack('n6', 0x40, 0x8000, 0x8000, 0x8000, 0, 0)))
            : Boxes::full('nmhd', 0, 0, '')));
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function take(AuxiliarySample $sample, MovieStream $movie, int $index): void
    {
        if (! $this->coded) {
            $this->put($sample, $movie, $index);

            return;
        }
        $text = (string) SubtitleText::read($this->auxiliary->coding, $sample->data);
        $held = $this->held;
        if ($held !== null && $held->pts === $sample->pts) {
            // Two texts at once stand beneath each other.
            $text = SubtitleText::read('tx3g', $held->data)."\n".$text;
            $this->held = null;
        }
        $this->give($sample->pts, $movie, $index);
        $this->held = new AuxiliarySample(SubtitleText::timedText($text), $sample->pts,
            $sample->duration > 0 ? $sample->duration : self::STAYS * $this->auxiliary->timescale);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function finish(MovieStream $movie, int $index, int $movieTimescale): void
    {
        $this->give(PHP_INT_MAX, $movie, $index);
        $ticks = fn (int $own): int => (int) round($own * $movieTimescale / $this->auxiliary->timescale);
        if ($this->late > 0 && $this->written > $this->late) {
            $this->track->present([new Edit($ticks($this->late), -1), new Edit($ticks($this->written - $this->late), 0)]);
        }
    }

    /**
     * Writes the text that waits; it ends at the latest where the next begins.
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function give(int $next, MovieStream $movie, int $index): void
    {
        if ($this->held !== null) {
            $this->put(new AuxiliarySample($this->held->data, $this->held->pts,
                max(1, min($this->held->duration, $next - $this->held->pts))), $movie, $index);
        }
        $this->held = null;
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function put(AuxiliarySample $sample, MovieStream $movie, int $index): void
    {
        $gap = $sample->pts - $this->written;
        if ($gap > 0 && $this->written === 0) {
            $this->late = $gap;
        } elseif ($gap > 0) {
            // ISO/IEC 14496-30, 6.6: `vtte` is the cue that is none.
            $movie->write($index, $this->track->handler === 'text' && str_contains($this->track->entry(), 'wvtt')
                ? Boxes::box('vtte', '') : "\0\0", $gap);
        }
        $movie->write($index, $sample->data, $sample->duration);
        $this->written = max($this->written, $sample->pts) + $sample->duration;
    }

    /** White text of a plain font, at the foot and in the middle: 3GPP TS 26.245, 5.16. */
    private static function timedText(): string
    {
        $style = pack('n3C2', 0, 0, 1, 0, 18)."\xFF\xFF\xFF\xFF";
        $font = 'Sans-Serif';

        return Boxes::box('tx3g', str_repeat("\0", 6).pack('n', 1).pack('N', 0)."\x01\xFF".str_repeat("\0", 4).str_repeat("\0",
            8).$style.Boxes::box('ftab', pack('n2C', 1, 1, strlen($font)).$font));
    }
}
