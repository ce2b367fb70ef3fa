<?php

declare(strict_types=1);

use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Video\AuxiliarySample;
use Octavox\Core\Container\Video\AuxiliarySource;
use Octavox\Core\Container\Video\AuxiliaryTrack;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Container\Video\SubtitleText;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Container\Video\VideoParts;
use Octavox\Core\Container\Video\VideoSound;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** Ticks of 1/90000 s a picture: film, PAL, NTSC, fifty, sixty, and one every two seconds. */
const PICTURE_TICKS = [3750, 3600, 3003, 1800, 1500, 180_000];

/** Orders of showing: as decoded, two between, one between, a pyramid; each counted from the first of its group. */
const PICTURE_ORDERS = [[0], [2, 0, 1], [1, 0], [3, 1, 0, 2]];

/** What a video by chance is made of, and what of it must be found again. */
final class ChanceVideo
{
    /** @var list<string> */
    public array $pictures = [];

    /** @var list<float> seconds from the first shown */
    public array $shown = [];

    /** @var list<bool> */
    public array $keys = [];

    /** @var list<VideoSound> */
    public array $sounds = [];

    /** @var list<list<Packet>> */
    public array $packets = [];

    /** @var list<Chapter> */
    public array $chapters = [];

    /** @var list<array{string, float, float}> */
    public array $texts = [];

    public Tags $tags;

    public string $path;

    /** @param  list<Codec>  $codecs  of the sound tracks to choose from */
    public function __construct(int $seed, string $container, array $codecs)
    {
        mt_srand($seed);
        $ticks = PICTURE_TICKS[mt_rand(0, 5)];
        $order = PICTURE_ORDERS[mt_rand(0, 3)];
        $count = mt_rand(2, $ticks > 10_000 ? 4 : 60) * count($order) + 1;
        $seconds = $count * $ticks / 90_000;
        foreach (range(1, mt_rand(1, 3)) as $number) {
            $this->soundTrack($codecs[mt_rand(0, count($codecs) - 1)], $seconds, $number);
        }
        $this->tags = Tags::none()->with(TagField::Title, "Lift $seed")->with(TagField::Comment, "two\nlines")
            ->with(TagField::Year, '2031');
        for ($time = 0.0; $time < $seconds && count($this->chapters) < 5; $time = round($time + mt_rand(200, 900) / 1000, 3)) {
            $this->chapters[] = new Chapter($time, 'Gate '.count($this->chapters).' ✓');
        }
        for ($time = 0.04; $time + 0.3 < $seconds && count($this->texts) < 6; $time = round($time + 0.4, 3)) {
            $this->texts[] = ['Text '.count($this->texts).' Môr', $time, 0.2];
        }
        $this->write($container, $ticks, $order, $count, $seconds);
    }

    private function soundTrack(Codec $codec, float $seconds, int $number): void
    {
        $rate = $codec === Codec::Opus ? 48_000 : [44_100, 48_000, 32_000][mt_rand(0, 2)];
        $channels = mt_rand(1, 2);
        $length = max(4000, (int) ($rate * min(4.0, $seconds * mt_rand(50, 130) / 100)));
        $audio = $codec === Codec::Pcm
            ? AudioFormat::pcm(SampleFormat::signed([16, 24][mt_rand(0, 1)]), $rate, Layout::undeclared($channels))
            : new AudioFormat($codec, $rate, Layout::undeclared($channels), $codec === Codec::Flac ? SampleFormat::signed(16) : null);
        $sides = array_map(fn (int $side): array => Signal::sweep($length, 0.3, 0.000001 * $side * $number), range(1, $channels));
        [$encoder, $packets] = Signal::encode($audio, CodecModules::of($codec)->isLossless() ? RateControl::none()
            : RateControl::near(96), $sides);
        $late = mt_rand(0, 1) === 0 ? 0 : mt_rand(1, 900) * intdiv($rate, 1000);
        $this->packets[] = $packets;
        $this->sounds[] = new VideoSound($encoder->audio(), $late, $encoder->delay(), $length, ['eng', 'cym', 'deu', 'fra'][mt_rand(0, 3)],
            ['', 'Commentary', '運河'][mt_rand(0, 2)], $packets[0]->data);
    }

    /** @param  list<int>  $order */
    private function write(string $container, int $ticks, array $order, int $count, float $seconds): void
    {
        $sink = new MemorySink;
        $delay = max($order);
        $stream = new PictureStream(Codec::H264, 320, 192, 90_000, 90_000 / $ticks,
            (string) hex2bin('0142c01effe100096742c01eda0506640101000468ce3c80'));
        $writer = VideoOutputs::named($container)->writer($sink, new VideoParts($stream, $delay * $ticks, $this->sounds, $this->tags,
            $this->chapters, $seconds, [new AuxiliaryTrack('S_TEXT/UTF8', '', 1000, 'cym', 'Titles')]));
        $next = array_fill(0, count($this->sounds), 0);
        $sound = function (float $until) use ($writer, &$next): void {
            foreach ($this->packets as $track => $own) {
                for (; isset($own[$next[$track]])
                    && $own[$next[$track]]->start <= $until * $this->sounds[$track]->audio->rate; $next[$track]++) {
                    $writer->sound($track, $own[$next[$track]]);
                }
            }
        };
        for ($index = 0; $index < $count; $index++) {
            // The first stands alone; groups follow.
            $group = intdiv($index - 1, count($order)) * count($order);
            $place = $index === 0 ? 0 : 1 + $group + $order[($index - 1) % count($order)];
            $bytes = pack('N', $size = mt_rand(1, 5) === 1 ? mt_rand(1, 90_000) : mt_rand(1, 900)).str_repeat(chr(mt_rand(1, 255)), $size);
            $this->pictures[] = md5($bytes);
            $this->shown[] = $place * $ticks / 90_000;
            $this->keys[] = $key = $index === 0 || ($index - 1) % count($order) === 0 && mt_rand(1, 6) === 1;
            $writer->picture(new PictureSample(Stretch::of($bytes), $index * $ticks, ($place + $delay) * $ticks, $ticks, $key));
            $sound(($index + 1) * $ticks / 90_000);
        }
        $sound(1e9);
        foreach ($this->texts as [$text, $from, $length]) {
            $writer->auxiliary(0, new AuxiliarySample($text, (int) round(1000 * $from), (int) round(1000 * $length)));
        }
        $writer->finish();
        $this->path = Scratch::write('chance.'.$container, $sink->bytes());
    }

    /** @return list<string> what of it a file holds otherwise */
    public function differences(string $path): array
    {
        $wrong = [];
        $opened = Opener::open($path);
        $media = $opened->media;
        assert($media instanceof VideoSource && $media instanceof AuxiliarySource);
        $stream = $media->pictureStream($opened->picture());
        $bytes = $shown = $keys = [];
        foreach ($media->pictures($opened->picture()) as $sample) {
            $bytes[] = md5($sample->data->bytes());
            $shown[] = $sample->pts / $stream->timescale;
            $keys[] = $sample->key;
        }
        $bytes === $this->pictures || $wrong[] = 'other pictures';
        $keys === $this->keys || $wrong[] = 'other keys';
        foreach ($shown as $index => $time) {
            // A millisecond of Matroska at either end.
            if (abs($time - min($shown) - ($this->shown[$index] ?? -9)) > 0.00101) {
                $wrong[] = "picture $index shown at ".($time - min($shown)).' instead of '.$this->shown[$index];
                break;
            }
        }
        $tracks = $opened->sound();
        count($tracks) === count($this->sounds) || $wrong[] = 'sound tracks: '.count($tracks);
        foreach ($tracks as $index => $track) {
            $this->sameSound($index, $track->timeline->samples(), $track->timeline->startOffset, $wrong);
            $track->language === $this->sounds[$index]->language || $wrong[] = "language $track->language";
            $hash = '';
            foreach ($media->packets($track, 0, PHP_INT_MAX >> 2) as $packet) {
                $hash .= $packet->data;
            }
            $hash === implode('', array_map(fn (Packet $packet): string => $packet->data, $this->packets[$index]))
                || $wrong[] = "other packets in $index";
        }
        foreach ([TagField::Title, TagField::Comment, TagField::Year] as $field) {
            $media->tags()->get($field) === $this->tags->get($field) || $wrong[] = $field->name.' '.$media->tags()->get($field);
        }
        $chapters = array_map(fn (Chapter $one): array => [$one->title, round($one->starts, 3)], Reader::read($path)->chapters);
        $chapters == array_map(fn (Chapter $one): array => [$one->title, $one->starts], $this->chapters)
            || $wrong[] = 'chapters '.json_encode($chapters);
        $texts = [];
        foreach ($media->tracks() as $track) {
            $auxiliary = $track->coding === '' ? null : $media->auxiliary($track);
            foreach ($auxiliary === null ? [] : $media->auxiliarySamples($track) as $sample) {
                $text = SubtitleText::read($auxiliary->coding, $sample->data);
                $text === '' || $texts[] = [$text, round($sample->pts / $auxiliary->timescale, 3),
                    round($sample->duration / $auxiliary->timescale, 3)];
            }
        }
        $texts == $this->texts || $wrong[] = 'texts '.json_encode($texts);

        return $wrong;
    }

    /** @param  list<string>  $wrong */
    private function sameSound(int $index, int $samples, int $late, array &$wrong): void
    {
        $sound = $this->sounds[$index];
        $samples === $sound->samples || $wrong[] = "sound $index has $samples samples instead of $sound->samples";
        // A millisecond, and the movie's own unit of time.
        abs($late - $sound->late) <= $sound->audio->rate / 900
            || $wrong[] = "sound $index begins $late samples late instead of $sound->late";
    }
}

it('carries any video through every container and back', function (int $seed, string $from, array $through) {
    $video = new ChanceVideo($seed, $from, [Codec::Aac, Codec::Mp3]);
    expect($video->differences($video->path))->toBe([], "$from as written");
    $path = $video->path;
    foreach ($through as $container) {
        $spec = Spec::video(VideoOutputs::named($container), null, RateControl::none(), Scratch::folder());
        $path = (new Maker)->make(Planning::plan(Reader::read($path), $spec), 'any')->path;
        expect($video->differences($path))->toBe([], "$from through $container");
    }
})->with(range(1, 12))->with([
    ['mkv', ['mp4', 'mov', 'mkv', 'mp4', 'mkv']], ['mp4', ['mov', 'mp4', 'mkv', 'mov']], ['mov', ['mkv', 'mp4', 'mov']],
]);
