<?php

declare(strict_types=1);

namespace Octavox\Demo;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\RateChange;
use Octavox\Core\Testing\DiscCellParts;
use Octavox\Core\Testing\StillMpegVideo;
use Octavox\Core\Testing\VideoDiscWriter;

/** Two discs: the choir evening of 1994 with pictures, and the brass band as an image with a sheet. */
final readonly class Discs
{
    private const RATE = Signals::RATE;

    /** Frames that a sector of an audio disc holds, and sectors a second: IEC 60908. */
    private const SECTOR = 588;

    private const SECTORS = 75;

    public function __construct(private Signals $signals) {}

    /** @return array<string, callable(FileSink): void> what writes each file */
    public function files(): array
    {
        return ['Choir evening 1994.iso' => $this->choir(...), 'Brass band.cue' => $this->sheet(...), 'Brass band.bin' => $this->band(...)];
    }

    /**
     * Two titles, sound in 5.1 and a commentary in stereo.
     *
     * @throws Failure
     */
    private function choir(FileSink $sink): void
    {
        (new VideoDiscWriter('CHOIR_EVENING_1994', [[4, 0x1A0, 6, 'en', 1], [2, 0xC0, 2, 'en', 3]]))
            ->title([$this->song('Evening hymn', 5, [0, 4, 7, 12, 7, 4, 0], 10), $this->song('The ferryman', 4, [5, 9, 12, 9, 5, 2], 30),
                $this->song('Lock gate round', 4, [7, 11, 14, 11, 7], 50)])
            ->title([$this->song('Encore', 4, [0, 5, 9, 12, 9, 5], -10)])
            ->image($sink);
    }

    /**
     * @param  list<int>  $notes
     *
     * @throws Failure
     */
    private function song(string $name, int $seconds, array $notes, int $hue): DiscCellParts
    {
        $count = $seconds * self::RATE;
        $tune = fn (int $by, float $level): array => $this->signals->tune(array_map(fn (int $note): int => $note + $by, $notes), $count,
            $level);
        $water = $this->signals->water($count, 0.15);
        $voice = $this->signals->voice('keeper');
        // The order of channels of such discs: left, right, centre, both surrounds, low frequencies.
        $channels = [$tune(0, 0.25), $tune(4, 0.22), $tune(12, 0.2), $this->signals->sum($count, [[$tune(0, 0.1), 2400, 1.0], [$water, 0,
            1.0]]),
            $this->signals->sum($count, [[$tune(7, 0.1), 3100, 1.0], [$water, 0, 1.0]]), $tune(-24, 0.3)];
        $comment = $this->signals->sum($count, [[$channels[0], 0, 0.3], [$voice, 9600, 0.8]]);
        $encoder = Codecs::encoder(AudioFormat::pcm(SampleFormat::signed(16, true), self::RATE, Layout::undeclared(6)),
            RateControl::none());
        $plain = '';
        foreach ([$encoder->encode(Block::fromChannels($channels)), $encoder->finish()] as $packets) {
            foreach ($packets as $packet) {
                $plain .= $packet->data;
            }
        }
        $sounds = [[], []];
        foreach (str_split($plain, 1920 * 12) as $index => $part) {
            $sounds[0][] = [$part, 3600 * $index];
        }
        $lossy = Codecs::encoder(new AudioFormat(Codec::Mp2, self::RATE, Layout::stereo()), RateControl::exactly(192));
        foreach ([$lossy->encode(Block::fromChannels([$comment, $comment])), $lossy->finish()] as $packets) {
            foreach ($packets as $packet) {
                $sounds[1][] = [$packet->data, intdiv($packet->start * 90_000, self::RATE)];
            }
        }
        $pictures = [];
        for ($at = 0; $at < $seconds; $at++) {
            array_push($pictures, ...StillMpegVideo::group(Scene::draw($name, $at / $seconds, $hue), 25, $at));
        }

        return new DiscCellParts($pictures, [$sounds[0], array_values(array_filter($sounds[1], fn (array $one): bool => $one[1] < $seconds
            * 90_000))]);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function sheet(FileSink $sink): void
    {
        $sink->write("REM GENRE Brass\r\nREM DATE 2026\r\nPERFORMER \"Wrenfield Brass\"\r\nTITLE \"Steam day\"\r\nCATALOG 0000000000000\r\n"
            ."FILE \"Brass band.bin\" BINARY\r\n");
        foreach ([['Gate march', 'Wrenfield Brass', 0], ['Lift waltz', 'Wrenfield Brass', 5], ['Song for six boats', 'Hetty Marlowe',
            9]] as $index => [$title, $performer, $second]) {
            $sink
                ->write(sprintf("  TRACK %02d AUDIO\r\n    TITLE \"%s\"\r\n    PERFORMER \"%s\"\r\n    ISRC ZZWRN260000%d\r\n%s    INDEX 01 %s\r\n",
                    $index + 1, $title, $performer, $index + 1, $index === 0 ? '' : sprintf("    INDEX 00 00:%02d:00\r\n", $second - 1),
                    sprintf('00:%02d:00', $second)));
        }
    }

    /**
     * @throws Failure
     */
    private function band(FileSink $sink): void
    {
        $count = 13 * self::RATE;
        $tune = $this->signals->sum($count, [[$this->signals->tune([0, 4, 7, 4, 0, 7, 12, 7], 4 * self::RATE, 0.3), 0, 1.0],
            [$this->signals->tune([9, 5, 2, 5, 9, 14], 3 * self::RATE, 0.3), 5 * self::RATE, 1.0],
            [$this->signals->tune([2, 7, 11, 14, 11, 7, 2], 4 * self::RATE, 0.3), 9 * self::RATE, 1.0]]);
        $change = new RateChange(self::RATE, 44_100, 2, false);
        $encoder = Codecs::encoder(AudioFormat::pcm(SampleFormat::signed(16), 44_100, Layout::stereo()), RateControl::none());
        $bytes = '';
        foreach ([$change->take(Block::fromChannels([$tune, $this->signals->sum($count, [[$tune, 300, 0.8]])])), $change
            ->finish()] as $blocks) {
            foreach ($blocks as $block) {
                foreach ($encoder->encode($block) as $packet) {
                    $bytes .= $packet->data;
                }
            }
        }
        $sink->write(str_pad(substr($bytes, 0, 13 * self::SECTORS * self::SECTOR * 4), 13 * self::SECTORS * self::SECTOR * 4, "\0"));
    }
}
