<?php

declare(strict_types=1);

namespace Octavox\Demo;

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\Packet;
use Octavox\Core\Codec\PcmForm;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\IsoMedia\MovieWriter;
use Octavox\Core\Container\IsoMedia\WriterTrack;
use Octavox\Core\Container\Wave\WaveWriter;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** The Wrenfield boat lift: what a crew of two brought home from its reopening. Small, made up, the same every time. */
final class DemoData
{
    private const RATE = Signals::RATE;

    private readonly Signals $signals;

    public function __construct(private readonly string $folder)
    {
        $this->signals = new Signals;
    }

    /** @return list<string> the paths, those that were there already included */
    public function build(): array
    {
        if (! is_dir($this->folder)) {
            mkdir($this->folder, 0775, true);
        }
        $files = [
            'Tour of the lift.mp4' => $this->tour(...),
            'Interview lift keeper.mov' => $this->interview(...),
            'Memo gate three.m4a' => $this->memo(...),
            'Canal at six in the morning.wav' => $this->canal(...),
            'Lift from the air.mp4' => $this->silentFlight(...),
        ];
        $paths = [];
        foreach ($files as $name => $make) {
            $path = $this->folder.'/'.$name;
            if (! is_file($path)) {
                $sink = FileSink::create($path.'.part');
                $make($sink);
                $sink->close();
                rename($path.'.part', $path);
            }
            $paths[] = $path;
        }

        return $paths;
    }

    private function tour(FileSink $sink): void
    {
        $count = 16 * self::RATE;
        $voice = $this->signals->voice('guide');
        $tune = $this->signals->tune([0, 4, 7, 12, 7, 4, 2, 5, 9, 14, 9, 5, 0, 4, 7, 12, 16, 12, 7, 4, 0, -99, 0], $count, 0.16);
        $water = $this->signals->water($count, 0.3);
        $left = $this->signals->sum($count, [[$tune, 0, 1.0], [$voice, 72000, 0.7], [$water, 0, 0.7]]);
        $right = $this->signals->sum($count, [[$tune, 260, 0.8], [$voice, 72000, 0.7], [array_reverse($water), 0, 0.7]]);
        $this->movie($sink, 'mp42', [
            $this->video('Wrenfield boat lift - the tour', 16, 10),
            $this->aac([$left, $right], 160, $count, 'eng'),
        ], $this->tags('Tour of the lift', 'Wrenfield Canal Society'));
    }

    private function interview(FileSink $sink): void
    {
        $voice = $this->signals->voice('keeper');
        $count = count($voice) + self::RATE;
        $water = $this->signals->water($count, 0.5);
        $lav = $this->signals->sum($count, [[$voice, 12000, 0.85], [$water, 0, 0.06]]);
        // The boom hangs a metre and a half further away: later by 4.4 ms, softer, with more of the canal.
        $boom = $this->signals->sum($count, [[$voice, 12210, 0.32], [$water, 3000, 0.4], [$this->signals->birds($count, 0.05), 0, 1.0]]);
        $form = SoundForm::pcm(PcmForm::signed(16), self::RATE, Layout::stereo());
        $packets = $this->encode($form, EncoderSetting::none(), [$lav, $boom]);
        $this->movie($sink, 'qt  ', [
            $this->video('Interview: the lift keeper', (int) ceil($count / self::RATE), -8),
            WriterTrack::sound($form, $packets, 0, $count, 'eng'),
        ], Tags::none());
    }

    private function memo(FileSink $sink): void
    {
        $voice = $this->signals->voice('memo');
        $count = count($voice);
        (new MovieWriter('M4A ', [$this->aac([$voice], 64, $count, 'und')], $this->tags('Memo gate three', 'M. Harrow'), self::RATE))->write($sink, false);
    }

    private function canal(FileSink $sink): void
    {
        $count = 20 * self::RATE;
        $birds = $this->signals->birds($count, 0.12);
        $left = $this->signals->sum($count, [[$this->signals->water($count, 0.35), 0, 1.0], [$birds, 0, 0.9]]);
        $right = $this->signals->sum($count, [[$this->signals->water($count, 0.35), 0, 1.0], [$birds, 30, 0.5]]);
        $form = SoundForm::pcm(PcmForm::signed(24), self::RATE, Layout::stereo());
        $writer = new WaveWriter($sink, $form, $this->tags('Canal at six in the morning', 'Wrenfield Canal Society')->with(TagField::Comment, 'Summit pound, two small microphones, no wind'), $count);
        foreach ($this->encode($form, EncoderSetting::none(), [$left, $right]) as $packet) {
            $writer->write($packet);
        }
        $writer->finish($count, $form);
    }

    private function silentFlight(FileSink $sink): void
    {
        $this->movie($sink, 'mp42', [$this->video('From the air, no microphone', 8, 24)], Tags::none());
    }

    private function video(string $caption, int $seconds, int $hue): WriterTrack
    {
        $video = new StillVideo(Scene::WIDTH, Scene::HEIGHT);
        for ($at = 0; $at < $seconds; $at += 2) {
            $video->show(Scene::draw(sprintf('%s  %d:%02d', $caption, intdiv($at, 60), $at % 60), $at / max(1, $seconds - 1), $hue));
            $video->hold(25 * min(2, $seconds - $at) - 1);
        }

        return WriterTrack::h264($video->pictures(), $video->keys(), $video->configuration(), Scene::WIDTH, Scene::HEIGHT, 25, 1);
    }

    /** @param  list<list<float>>  $channels */
    private function aac(array $channels, int $kbps, int $count, string $language): WriterTrack
    {
        $encoder = Codecs::encoder(new SoundForm(Codec::Aac, self::RATE, Layout::undeclared(count($channels))), EncoderSetting::constant($kbps));
        $packets = [];
        foreach ([$encoder->encode(Block::fromChannels($channels)), $encoder->finish()] as $part) {
            foreach ($part as $packet) {
                $packets[] = $packet;
            }
        }

        return WriterTrack::sound($encoder->form(), $packets, $encoder->delay(), $count, $language);
    }

    /**
     * @param  list<list<float>>  $channels
     * @return list<Packet>
     */
    private function encode(SoundForm $form, EncoderSetting $setting, array $channels): array
    {
        $encoder = Codecs::encoder($form, $setting);
        $block = Block::fromChannels($channels);
        $packets = [];
        for ($from = 0; $from < $block->frames; $from += $count) {
            $count = min(24000, $block->frames - $from);
            foreach ($encoder->encode($block->part($from, $count)) as $packet) {
                $packets[] = $packet;
            }
        }

        return $packets;
    }

    /** @param  non-empty-list<WriterTrack>  $tracks */
    private function movie(FileSink $sink, string $brand, array $tracks, Tags $tags): void
    {
        (new MovieWriter($brand, $tracks, $tags, self::RATE))->write($sink);
    }

    private function tags(string $title, string $artist): Tags
    {
        return Tags::none()->with(TagField::Title, $title)->with(TagField::Artist, $artist)->with(TagField::Album, 'The Wrenfield reopening')->with(TagField::Year, '2026');
    }
}
