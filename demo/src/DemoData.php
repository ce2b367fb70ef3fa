<?php

declare(strict_types=1);

namespace Octavox\Demo;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\Encoder;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Flac\FlacWriter;
use Octavox\Core\Container\Matroska\MatroskaVideo;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Container\Video\VideoParts;
use Octavox\Core\Container\Video\VideoSound;
use Octavox\Core\Container\Wave\BlockOutput;
use Octavox\Core\Container\Wave\WaveWriter;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\RateChange;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\MovieWriter;
use Octavox\Core\Testing\TransportWriter;
use Octavox\Core\Testing\WriterTrack;

/** The Wrenfield boat lift: what a crew of two brought home from its reopening. Small, made up, the same every time. */
final class DemoData
{
    private const RATE = Signals::RATE;

    private readonly Signals $signals;

    public function __construct(private readonly string $folder)
    {
        $this->signals = new Signals;
    }

    /**
     * @return list<string> the paths, those that were there already included
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function build(): array
    {
        is_dir($this->folder.'/Discs') || mkdir($this->folder.'/Discs', 0775, true);
        $files = [
            'Tour of the lift.mp4' => $this->tour(...),
            'Interview lift keeper.mov' => $this->interview(...),
            'Memo gate three.m4a' => $this->memo(...),
            'Canal at six in the morning.wav' => $this->canal(...),
            'Lift from the air.mp4' => $this->silentFlight(...),
            'Steam day capture.m2ts' => $this->steamDay(...),
            'Opening ceremony.mkv' => $this->ceremony(...),
            'Evening rehearsal.mp3' => $this->mislabelled(...),
            'Note from the lock 0412.wav' => $this->telephoneNote(...),
            'Old camera, north gate.avi' => $this->oldCamera(...),
        ];
        foreach ((new Discs($this->signals))->files() as $name => $make) {
            $files['Discs/'.$name] = $make;
        }
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

    /**
     * Puts the video disc into the tray of a drive and lays the audio disc beside, and plugs a recorder and a player in, where nothing of
     * that is there.
     *
     * @param  string  $home  in which the drive and the recorders are
     *
     * @throws Failure
     */
    public function plug(string $home): void
    {
        if (! is_dir($home.'/recorders')) {
            mkdir($home.'/recorders/Field recorder/NOTES', 0775, true);
            foreach (['260509_0612' => 6, '260509_0640' => 4] as $name => $seconds) {
                $count = $seconds * self::RATE;
                $audio = AudioFormat::pcm(SampleFormat::signed(16), self::RATE, Layout::mono());
                $sink = FileSink::create("$home/recorders/Field recorder/NOTES/$name.wav");
                $packets = $this->encode($audio, RateControl::none(), [$this->signals->sum($count, [[$this->signals->water($count, 0.3),
                    0, 1.0],
                    [$this->signals->birds($count, 0.1), 0, 1.0]])]);
                $this->file(new WaveWriter($sink, $audio, Tags::none(), $count), $packets, $count, $audio);
                $sink->close();
                touch("$home/recorders/Field recorder/NOTES/$name.wav", (int) strtotime('2026-05-09 06:12') + 1680 * ($seconds === 4 ? 1
                    : 0));
            }
        }
        if (! is_dir($home.'/players')) {
            mkdir($home.'/players/Pocket player', 0775, true);
            $accepts = ['containers' => ['mp3'], 'codecs' => ['mp3'], 'picture' => false, 'most_channels' => 2, 'most_kbps' => 320];
            file_put_contents($home.'/players/Pocket player/player.json', json_encode(['version' => 1, 'body' => [
                'capacity_bytes' => 64_000_000, 'folder' => 'MUSIC', 'names' => '{artist|"Unknown"}/{title|stem}', 'playlists' => 'PLAYLISTS'],
                'destination' => ['title' => 'Pocket player of the lift keeper', 'note' => 'MP3 up to 320 kbit/s, stereo at most.',
                    'accepts' => [$accepts], 'spec' => ['version' => 1, 'container' => 'mp3', 'sounds' => [['rate_control' => [
                        'mode' => 'nearest', 'kbps' => 192]]]]]], JSON_PRETTY_PRINT));
        }
        if (! is_dir($home.'/hosts')) {
            mkdir($home.'/hosts/canal-podcast', 0775, true);
            $podcast = json_decode((string) file_get_contents(dirname(__DIR__, 2).'/core/destinations/podcast-host.json'), true);
            file_put_contents($home.'/hosts/canal-podcast/host.json', json_encode(['version' => 1, 'show' => ['title' => 'The canal’s podcast',
                'description' => 'From the Wrenfield boat lift, every second week.', 'language' => 'en', 'author' => 'Wrenfield Canal Society',
                'address' => 'http://localhost/hosted/canal-podcast'], 'destination' => $podcast],
                JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE));
        }
        $drive = $home.'/drive';
        if (is_dir($drive)) {
            return;
        }
        foreach (['Choir evening 1994.iso' => 'tray', 'Brass band.cue' => 'discs/Brass band', 'Brass band.bin' => 'discs/Brass band'] as $name => $place) {
            is_dir("$drive/$place") || mkdir("$drive/$place", 0775, true);
            copy("$this->folder/Discs/$name", "$drive/$place/$name");
        }
    }

    /**
     * @throws Failure
     */
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

    /**
     * @throws Failure
     */
    private function interview(FileSink $sink): void
    {
        $voice = $this->signals->voice('keeper');
        $count = count($voice) + self::RATE;
        $water = $this->signals->water($count, 0.5);
        $lav = $this->signals->sum($count, [[$voice, 12000, 0.85], [$water, 0, 0.06]]);
        // The boom hangs a metre and a half further away: later by 4.4 ms, softer, with more of the canal.
        $boom = $this->signals->sum($count, [[$voice, 12210, 0.32], [$water, 3000, 0.4], [$this->signals->birds($count, 0.05), 0, 1.0]]);
        $audio = AudioFormat::pcm(SampleFormat::signed(16), self::RATE, Layout::stereo());
        $packets = $this->encode($audio, RateControl::none(), [$lav, $boom]);
        $this->movie($sink, 'qt  ', [
            $this->video('Interview: the lift keeper', (int) ceil($count / self::RATE), -8),
            WriterTrack::sound($audio, $packets, 0, $count, 'eng'),
        ], Tags::none());
    }

    /**
     * @throws Failure
     */
    private function memo(FileSink $sink): void
    {
        $voice = $this->signals->voice('memo');
        $count = count($voice);
        (new MovieWriter('M4A ', [$this->aac([$voice, array_fill(0, $count, 0.0)], 96, $count, 'und')],
            $this->tags('Memo gate three', 'M. Harrow'), self::RATE))->write($sink, false);
    }

    /**
     * @throws Failure
     */
    private function canal(FileSink $sink): void
    {
        $count = 20 * self::RATE;
        $birds = $this->signals->birds($count, 0.12);
        $left = $this->signals->sum($count, [[$this->signals->water($count, 0.35), 0, 1.0], [$birds, 0, 0.9]]);
        $right = $this->signals->sum($count, [[$this->signals->water($count, 0.35), 0, 1.0], [$birds, 30, 0.5]]);
        $audio = AudioFormat::pcm(SampleFormat::signed(24), self::RATE, Layout::stereo());
        $writer = new WaveWriter($sink, $audio, $this->tags('Canal at six in the morning', 'Wrenfield Canal Society')
            ->with(TagField::Comment, 'Summit pound, two small microphones, no wind'), $count);
        foreach ($this->encode($audio, RateControl::none(), [$left, $right]) as $packet) {
            $writer->write($packet);
        }
        $writer->finish($count, $audio);
    }

    private function silentFlight(FileSink $sink): void
    {
        $this->movie($sink, 'mp42', [$this->video('From the air, no microphone', 8, 24)], Tags::none());
    }

    /**
     * A disc camcorder's capture: packets of 192 bytes, sound that begins 80 ms after the picture.
     *
     * @throws Failure
     */
    private function steamDay(FileSink $sink): void
    {
        $count = 12 * self::RATE;
        $hiss = $this->signals->water($count, 0.8);
        $left = $this->signals->sum($count, [[$hiss, 0, 0.8], [$this->signals->tune([0, -99, 0, -99, 7, 7, 0, -99], $count, 0.3), 0, 1.0]]);
        $right = $this->signals->sum($count,
            [[array_reverse($hiss), 0, 0.8], [$this->signals->tune([0, -99, 0, -99, 7, 7, 0, -99], $count, 0.3), 480, 0.7]]);
        $video = $this->stills('Steam day at the lift', 12, 36);
        $encoder = Codecs::encoder(new AudioFormat(Codec::Aac, self::RATE, Layout::stereo()), RateControl::exactly(128));
        $sound = [];
        foreach ([$encoder->encode(Block::fromChannels([$left, $right])), $encoder->finish()] as $part) {
            foreach ($part as $packet) {
                $sound[] = $packet;
            }
        }
        $writer = new TransportWriter($sink, [[0x1B, null, ''], [0x0F, 'eng', '']], 192);
        $next = 0;
        foreach ($video->pictures() as $number => $picture) {
            $time = 90_000 + 3600 * $number;
            $parameters = in_array($number, $video->keys(), true) ? "\0\0\0\1".substr($video->configuration(), 8,
                ord($video->configuration()[7]))."\0\0\0\1".substr($video->configuration(), 11 + ord($video->configuration()[7])) : '';
            $writer->write(0, "\0\0\0\1\x09\xF0".$parameters."\0\0\0\1".substr($picture, 4), $time);
            for (; isset($sound[$next]) && $sound[$next]->start * 25 <= ($number + 1) * self::RATE; $next++) {
                $data = $sound[$next]->data;
                $writer->write(1, AdtsFrameParser::header($encoder->audio()->config, strlen($data)).$data,
                    90_000 + 7200 + intdiv($sound[$next]->start * 90_000, self::RATE));
            }
        }
    }

    /**
     * 5.1 of the square, and a commentary in stereo.
     *
     * @throws Failure
     */
    private function ceremony(FileSink $sink): void
    {
        $count = 14 * self::RATE;
        $voice = $this->signals->voice('guide');
        $tune = $this->signals->tune([0, 4, 7, 12, 12, 7, 4, 0, 5, 9, 12, 9, 5, 0], $count, 0.2);
        $water = $this->signals->water($count, 0.3);
        $birds = $this->signals->birds($count, 0.1);
        $low = $this->signals->tune([-24, -24, -17, -24, -24, -17, -24], $count, 0.25);
        $layout = Layout::fiveOne();
        $channels = [$tune, $this->signals->sum($count, [[$tune, 300, 0.9]]), $this->signals->sum($count, [[$voice, 48_000, 0.8]]), $low,
            $this->signals->sum($count, [[$water, 0, 0.6], [$birds, 0, 0.8]]),
            $this->signals->sum($count, [[array_reverse($water), 0, 0.6], [$birds, 900, 0.8]])];
        $square = $this->packets(new AudioFormat(Codec::Flac, self::RATE, $layout, null, '', 0, '', 16), RateControl::none(), $channels);
        $comment = $this->packets(new AudioFormat(Codec::Opus, self::RATE, Layout::stereo()), RateControl::exactly(64),
            array_fill(0, 2, $this->signals->sum($count, [[$voice, 24_000, 0.9]])));
        $video = $this->stills('Opening ceremony', 14, 48);
        $picture = new PictureStream(Codec::H264, Scene::WIDTH, Scene::HEIGHT, 25, 25.0, $video->configuration());
        $sounds = [
            new VideoSound($square[0]->audio(), 0, 0, $count, 'eng', 'The square, 5.1', ''),
            new VideoSound($comment[0]->audio(), 0, $comment[0]->delay(), $count, 'eng', 'Commentary', ''),
        ];
        $writer = MatroskaVideo::matroska()->writer($sink, new VideoParts($picture, 0, $sounds, $this->tags('Opening ceremony',
            'Wrenfield Canal Society'),
            [new Chapter(0.0, 'The band arrives'), new Chapter(5.0, 'The speech'), new Chapter(11.0, 'The first boat')], 14.0));
        $next = [0, 0];
        foreach ($video->pictures() as $number => $data) {
            $writer->picture(new PictureSample(Stretch::of($data), $number, $number, 1, in_array($number, $video->keys(), true)));
            foreach ([$square[1], $comment[1]] as $index => $packets) {
                for (; isset($packets[$next[$index]])
                    && $packets[$next[$index]]->start * 25 <= ($number + 1) * self::RATE; $next[$index]++) {
                    $writer->sound($index, $packets[$next[$index]]);
                }
            }
        }
        foreach ([$square[1], $comment[1]] as $index => $packets) {
            for (; isset($packets[$next[$index]]); $next[$index]++) {
                $writer->sound($index, $packets[$next[$index]]);
            }
        }
        $writer->finish();
    }

    /**
     * Somebody changed the ending of the name: it is FLAC.
     *
     * @throws Failure
     */
    private function mislabelled(FileSink $sink): void
    {
        $count = 10 * self::RATE;
        $tune = $this->signals->tune([0, 2, 4, 5, 7, 9, 11, 12, 11, 9, 7, 5, 4, 2, 0], $count, 0.3);
        [$encoder, $packets] = $this->packets(new AudioFormat(Codec::Flac, self::RATE, Layout::stereo(), null, '', 0, '', 16),
            RateControl::none(), [$tune, $this->signals->sum($count, [[$tune, 700, 0.7]])]);
        $this->file(new FlacWriter($sink, $encoder->audio(), $this->tags('Evening rehearsal', 'Wrenfield Brass')), $packets, $count,
            $encoder->audio());
    }

    /**
     * A note that was left by telephone.
     *
     * @throws Failure
     */
    private function telephoneNote(FileSink $sink): void
    {
        $voice = $this->signals->voice('memo');
        $change = new RateChange(self::RATE, 8000, 1, false);
        $samples = [];
        foreach ([$change->take(Block::fromChannels([$voice])), $change->finish()] as $blocks) {
            foreach ($blocks as $block) {
                array_push($samples, ...$block->toChannels()[0]);
            }
        }
        $audio = BlockOutput::gsm()->audio(new AudioFormat(Codec::Gsm, 8000, Layout::mono()), 8000, Layout::mono(), null);
        [$encoder, $packets] = $this->packets($audio, RateControl::none(), [$samples]);
        $this->file(new WaveWriter($sink, $encoder->audio(), Tags::none(), count($samples)), $packets, count($samples), $encoder->audio());
    }

    /**
     * @throws Failure
     */
    private function oldCamera(FileSink $sink): void
    {
        $rate = 32_000;
        $seconds = 8;
        $water = $this->signals->water($seconds * $rate, 0.6);
        [, $packets] = $this->packets(AudioFormat::pcm(SampleFormat::signed(16), $rate, Layout::stereo()), RateControl::none(),
            [$water, array_reverse($water)]);
        $pictures = [];
        for ($number = 0; $number < $seconds * 10; $number++) {
            $image = imagescale(Scene::draw(sprintf('North gate  0:%02d', intdiv($number, 10)), $number / ($seconds * 10), -20), 320,
                176) ?: throw new \LogicException('The picture cannot be drawn.');
            ob_start();
            imagejpeg($image, null, 60);
            $pictures[] = (string) ob_get_clean();
        }
        $sink->write(CaptureFile::write($pictures, 10, 320, 176,
            implode('', array_map(fn (Packet $packet): string => $packet->data, $packets)), $rate, 'North gate'));
    }

    /**
     * @param  list<list<float>>  $channels
     * @return array{Encoder, list<Packet>}
     *
     * @throws Failure
     */
    private function packets(AudioFormat $audio, RateControl $rateControl, array $channels): array
    {
        $encoder = Codecs::encoder($audio, $rateControl, count($channels[0]));
        $block = Block::fromChannels($channels);
        $packets = [];
        for ($from = 0; $from < $block->frames; $from += $count) {
            $count = min(24000, $block->frames - $from);
            array_push($packets, ...$encoder->encode($block->part($from, $count)));
        }
        array_push($packets, ...$encoder->finish());

        return [$encoder, $packets];
    }

    /** @param  list<Packet>  $packets */
    private function file(SoundWriter $writer, array $packets, int $samples, AudioFormat $audio): void
    {
        foreach ($packets as $packet) {
            $writer->write($packet);
        }
        $writer->finish($samples, $audio);
    }

    private function stills(string $caption, int $seconds, int $hue): StillVideo
    {
        $video = new StillVideo(Scene::WIDTH, Scene::HEIGHT);
        for ($at = 0; $at < $seconds; $at += 2) {
            $video->show(Scene::draw(sprintf('%s  %d:%02d', $caption, intdiv($at, 60), $at % 60), $at / max(1, $seconds - 1), $hue));
            $video->hold(25 * min(2, $seconds - $at) - 1);
        }

        return $video;
    }

    private function video(string $caption, int $seconds, int $hue): WriterTrack
    {
        $video = $this->stills($caption, $seconds, $hue);

        return WriterTrack::h264($video->pictures(), $video->keys(), $video->configuration(), Scene::WIDTH, Scene::HEIGHT, 25, 1);
    }

    /**
     * @param  list<list<float>>  $channels
     *
     * @throws Failure
     */
    private function aac(array $channels, int $kbps, int $count, string $language): WriterTrack
    {
        $encoder = Codecs::encoder(new AudioFormat(Codec::Aac, self::RATE, Layout::undeclared(count($channels))),
            RateControl::exactly($kbps));
        $packets = [];
        foreach ([$encoder->encode(Block::fromChannels($channels)), $encoder->finish()] as $part) {
            foreach ($part as $packet) {
                $packets[] = $packet;
            }
        }

        return WriterTrack::sound($encoder->audio(), $packets, $encoder->delay(), $count, $language);
    }

    /**
     * @param  list<list<float>>  $channels
     * @return list<Packet>
     *
     * @throws Failure
     */
    private function encode(AudioFormat $audio, RateControl $rateControl, array $channels): array
    {
        $encoder = Codecs::encoder($audio, $rateControl);
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
        return Tags::none()->with(TagField::Title, $title)->with(TagField::Artist, $artist)
            ->with(TagField::Album, 'The Wrenfield reopening')->with(TagField::Year, '2026');
    }
}
