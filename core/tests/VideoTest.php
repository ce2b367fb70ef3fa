<?php

declare(strict_types=1);

use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\Video\MpegPictures;
use Octavox\Core\Container\IsoMedia\PictureEntry;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\Attachment;
use Octavox\Core\Container\Video\AttachmentSource;
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
use Octavox\Core\Make\Result;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Plan\Action;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\Target;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Testing\TransportWriter;
use Octavox\Core\Tests\Support\Pictured;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;
use Octavox\Core\Tests\Support\TimeStamp;

/** Parameter sets of 320 × 192, baseline. */
const SEQUENCE = '6742c01eda05066401';
const PICTURE = '68ce3c80';

function avcRecord(): string
{
    return hex2bin('0142c01effe10009'.SEQUENCE.'010004'.PICTURE) ?: '';
}

/** Shown one after the other, two late and one early in turn, as with pictures that depend on later ones. */
function reordered(int $index): int
{
    return $index === 0 ? 0 : [$index + 2, $index - 1, $index - 1][($index - 1) % 3];
}

/**
 * Three seconds of 25 pictures with AAC, 120 ms late, and a second track of other sound.
 *
 * @param  list<Chapter>  $chapters
 * @param  list<array{AuxiliaryTrack, list<AuxiliarySample>}>  $beside
 * @param  list<Attachment>  $attachments
 */
function filmFile(string $container, ?PictureStream $stream = null, array $chapters = [], ?AudioFormat $second = null, array $beside = [],
    array $attachments = []): string
{
    $sounds = [];
    $packets = [];
    foreach ([new AudioFormat(Codec::Aac, 48000, Layout::stereo()),
        $second ?? AudioFormat::pcm(SampleFormat::signed(16), 48000, Layout::stereo())] as $index => $audio) {
        [$encoder, $packets[]] = Signal::encode($audio, RateControl::exactly(128),
            [Signal::sweep(140_000, 0.4, 0.0000015), Signal::sweep(140_000, 0.3, 0.000001)]);
        $sounds[] = new VideoSound($encoder->audio(), $index === 0 ? 5760 : 0, $encoder->delay(), 140_000, ['eng', 'cym'][$index],
            ['', 'Second'][$index], '');
    }
    $sink = new MemorySink;
    $writer = VideoOutputs::named($container)->writer($sink, new VideoParts($stream
        ?? new PictureStream(Codec::H264, 320, 192, 1000, 25.0, avcRecord()), 40, $sounds, Tags::none()->with(TagField::Title, 'Lift'),
        $chapters, 3.0, array_column($beside, 0), $attachments));
    $next = [0, 0];
    for ($index = 0; $index < 76; $index++) {
        $writer->picture(new PictureSample(Stretch::of(pack('N', 300).str_repeat(chr($index), 300)), 40 * $index,
            40 * reordered($index) + 40, 40, $index % 25 === 0));
        foreach ($packets as $sound => $own) {
            for (; isset($own[$next[$sound]]) && $own[$next[$sound]]->start <= ($index + 1) * 1920; $next[$sound]++) {
                $writer->sound($sound, $own[$next[$sound]]);
            }
        }
    }
    foreach ($packets as $sound => $own) {
        for (; isset($own[$next[$sound]]); $next[$sound]++) {
            $writer->sound($sound, $own[$next[$sound]]);
        }
    }
    foreach ($beside as $index => [, $samples]) {
        foreach ($samples as $sample) {
            $writer->auxiliary($index, $sample);
        }
    }
    $writer->finish();

    return Scratch::write('video.'.$container, $sink->bytes());
}

/** @param  ?list<int>  $tracks */
function videoMade(string $path, string $video, ?string $sound = null, ?array $tracks = null, ?Layout $layout = null): Result
{
    $wish = Spec::video(VideoOutputs::named($video), $sound === null ? null : Outputs::named($sound), RateControl::none(),
        Scratch::folder(),
        null, null, $layout, $tracks);

    return (new Maker)->make(Planning::plan(Reader::read($path), $wish), bin2hex(random_bytes(4)));
}

/** @return array{list<string>, list<int>, list<bool>} bytes, milliseconds from the first shown, keys */
function picturesOf(string $path): array
{
    $source = Opener::open($path);
    $media = $source->media;
    assert($media instanceof VideoSource);
    $stream = $media->pictureStream($source->picture());
    $bytes = [];
    $shown = [];
    $keys = [];
    foreach ($media->pictures($source->picture()) as $sample) {
        $bytes[] = md5($sample->data->bytes());
        $shown[] = $sample->pts / $stream->timescale * 1000;
        $keys[] = $sample->key;
    }

    return [$bytes, array_map(fn (float $time): int => (int) round($time - min($shown)), $shown), $keys];
}

it('copies pictures bit for bit and shows them at the same times in every container', function (string $from, string $to) {
    $path = filmFile($from);
    $result = (string) videoMade($path, $to)->path;
    $before = picturesOf($path);
    expect(count($before[0]))->toBe(76)
        ->and(picturesOf($result))->toBe($before)
        ->and(Reader::read($result)->picture()->picture->startOffset)->toEqualWithDelta(0.0, 1e-6)
        ->and(Reader::read($result)->picture()->picture->width)->toBe(320);
})->with([['mp4', 'mov'], ['mp4', 'mkv'], ['mov', 'mp4'], ['mkv', 'mp4'], ['mkv', 'mov'], ['mkv', 'mkv']]);

it('keeps sound, its start, language and packets where the container carries them', function (string $from, string $to) {
    $path = filmFile($from);
    $delivery = videoMade($path, $to);
    $before = Reader::read($path)->sound();
    $after = Reader::read((string) $delivery->path)->sound();
    expect($delivery->plan->isKept())->toBeTrue()
        ->and(Signal::packetsOf((string) $delivery->path))->toBe(Signal::packetsOf($path))
        ->and(Reader::read((string) $delivery->path)->tags->get(TagField::Title))->toBe('Lift');
    foreach ($before as $index => $track) {
        expect($after[$index]->timeline->samples())->toBe($track->timeline->samples())
            ->and(abs($after[$index]->timeline->startOffset - $track->timeline->startOffset))->toBeLessThanOrEqual(48)
            ->and($after[$index]->language)->toBe(['eng', 'cym'][$index])
            ->and($after[$index]->sound->codec)->toBe($track->sound->codec);
    }
    expect($after[0]->timeline->startOffset)->toEqualWithDelta(5760, 48);
})->with([['mp4', 'mov'], ['mp4', 'mkv'], ['mov', 'mp4'], ['mkv', 'mp4'], ['mkv', 'mov']]);

it('remakes sound that a container does not carry, in step with the picture',
    function (string $from, string $to, string $sound, string $codec) {
        $path = filmFile($from);
        $delivery = videoMade($path, $to, $sound, [2]);
        $reading = Reader::read((string) $delivery->path);
        $track = $reading->sound()[0];
        $decoded = Signal::decodeFile((string) $delivery->path);
        $sweep = Signal::sweep(140_000, 0.4, 0.0000015);
        expect($delivery->plan->sounds[0]->action)->toBe(Action::Remade)
            ->and($track->sound->codec->value)->toBe($codec)
            ->and($track->timeline->startOffset)->toBe(0)
            ->and(count($decoded[0]))->toBe(145_760)
            ->and(max(array_map(abs(...), array_slice($decoded[0], 0, 4000))))->toBeLessThan(0.001)
            ->and(Signal::difference($sweep, array_slice($decoded[0], 5760), 3000, 130_000))->toBeLessThan(-20.0)
            ->and(picturesOf((string) $delivery->path))->toBe(picturesOf($path));
    })->with([['mp4', 'mov', 'wav', 'pcm'], ['mp4', 'mkv', 'flac', 'flac'], ['mkv', 'mp4', 'aac', 'aac'], ['mp4', 'mkv', 'opus', 'opus'],
        ['mkv', 'mov', 'alac', 'alac'], ['mov', 'mp4', 'mp3', 'mp3'], ['mp4', 'mkv', 'vorbis', 'vorbis']]);

it('takes the tracks that are asked for, several remade at once', function () {
    $path = filmFile('mkv', null, [], new AudioFormat(Codec::Opus, 48000, Layout::stereo()));
    $delivery = videoMade($path, 'mov');
    $sound = Reader::read((string) $delivery->path)->sound();
    expect(array_map(fn ($track) => $track->sound->codec, $sound))->toBe([Codec::Aac, Codec::Pcm])
        ->and($delivery->plan->sounds[1]->action)->toBe(Action::Remade)
        ->and(count(Reader::read((string) videoMade($path, 'mp4', null, [3])->path)->sound()))->toBe(1)
        ->and(fn () => videoMade($path, 'mp4', null, [9]))->toThrow(CannotPlan::class, 'no sound track 9');
});

it('carries chapters from one container into another', function (string $from, string $to) {
    $chapters = [new Chapter(0.0, 'Lock “one”'), new Chapter(1.2, 'Zwei'), new Chapter(2.5, 'Trois')];
    $path = filmFile($from, null, $chapters);
    $after = Reader::read((string) videoMade($path, $to)->path)->chapters;
    expect(array_map(fn (Chapter $chapter): array => $chapter->toArray(), $after))
        ->toBe(array_map(fn (Chapter $chapter): array => $chapter->toArray(), $chapters));
})->with([['mkv', 'mp4'], ['mp4', 'mkv'], ['mov', 'mp4']]);

/**
 * @return list<array{string, string, ?string, string, list<array{string, int, int}>}> coding, description, language, name, and of each
 * sample that shows something bytes or text, begin and length in milliseconds
 */
function besideOf(string $path): array
{
    $media = Opener::open($path)->media;
    assert($media instanceof AuxiliarySource);
    $found = [];
    foreach ($media->tracks() as $track) {
        $auxiliary = $track->coding === '' ? null : $media->auxiliary($track);
        if ($auxiliary !== null) {
            $samples = [];
            foreach ($media->auxiliarySamples($track) as $sample) {
                $text = SubtitleText::read($auxiliary->coding, $sample->data) ?? bin2hex($sample->data);
                $samples[] = [$text, (int) round($sample->pts * 1000 / $auxiliary->timescale),
                    (int) round($sample->duration * 1000 / $auxiliary->timescale)];
            }
            $found[] = [$auxiliary->coding, bin2hex($auxiliary->description), $auxiliary->language, $auxiliary->name,
                array_values(array_filter($samples, fn (array $sample): bool => $sample[0] !== ''))];
        }
    }

    return $found;
}

it('carries subtitles from one container into another and back', function () {
    $texts = [new AuxiliarySample('The lift rises.', 400, 900), new AuxiliarySample("<i>Mind</i> the gate,\nall of you.", 1300, 600),
        new AuxiliarySample('Môr & mynydd', 2500, 400)];
    $path = filmFile('mkv', null, [new Chapter(0.0, 'One')], null, [[new AuxiliaryTrack('S_TEXT/UTF8', '', 1000, 'cym', 'Helen'), $texts]]);
    $shown = [['The lift rises.', 400, 900], ["Mind the gate,\nall of you.", 1300, 600], ['Môr & mynydd', 2500, 400]];
    expect(besideOf($path)[0])->toBe(['S_TEXT/UTF8', '', 'cym', 'Helen', $shown]);
    foreach (['mp4', 'mov', 'mkv', 'mov', 'mp4'] as $container) {
        $delivery = videoMade($path, $container);
        $path = (string) $delivery->path;
        $beside = besideOf($path);
        expect(count($beside))->toBe(1)->and($beside[0][0])->toBe($container === 'mkv' ? 'S_TEXT/UTF8' : 'tx3g')
            ->and($beside[0][2])->toBe('cym')->and($beside[0][4])->toBe($shown)
            ->and(implode(', ', Planning::steps($delivery->plan)))->toContain('(Welsh) copied')
            ->and(Reader::read($path)->chapters[0]->title)->toBe('One');
    }
});

it('shows texts one beneath the other where a container cannot show two at once', function () {
    $path = filmFile('mkv', null, [], null,
        [[new AuxiliaryTrack('S_TEXT/UTF8', '', 1000, null, ''),
            [new AuxiliarySample('Above', 100, 500), new AuxiliarySample('Below', 100, 500), new AuxiliarySample('Without an end', 400,
                0)]]]);
    expect(besideOf((string) videoMade($path, 'mp4')->path)[0][4])->toBe([["Above\nBelow", 100, 300], ['Without an end', 400, 3000]]);
});

it('copies subtitles of every kind bit for bit into the same container, and says which have no place in another', function () {
    $pictures = [new AuxiliarySample(random_bytes(400), 300, 0), new AuxiliarySample(random_bytes(30), 1200, 0)];
    $styled = [new AuxiliarySample('0,0,Default,,0,0,0,,{\\i1}Up{\\i0}', 200, 700)];
    $path = filmFile('mkv', null, [], null, [[new AuxiliaryTrack('S_HDMV/PGS', '', 1000, 'eng', ''), $pictures],
        [new AuxiliaryTrack('S_TEXT/ASS', "[Script Info]\n", 1000, 'eng', ''), $styled]]);
    $before = besideOf($path);
    expect(count($before))->toBe(2)->and($before[0][4][0][0])->toBe(bin2hex($pictures[0]->data))
        ->and(besideOf((string) videoMade($path, 'mkv')->path))->toBe($before);
    $video = videoMade($path, 'mp4');
    expect(implode(', ', Planning::steps($video->plan)))
        ->toContain('subtitles 4 (English) left out: Video, MP4 has no place for “S_HDMV/PGS”')
        ->and(besideOf((string) $video->path))->toBe([]);
});

it('keeps the time code of a camera, which the picture refers to', function () {
    $box = fn (string $type, string $body): string => pack('N', strlen($body) + 8).$type.$body;
    // 25 frames a second
    $entry = $box('tmcd', str_repeat("\0", 6).pack('nN4C2', 1, 0, 0, 25_000, 1000, 25, 0));
    $header = $box('gmhd', $box('gmin', pack('Nn6', 0, 0x40, 0x8000, 0x8000, 0x8000, 0, 0)).$box('tmcd',
        $box('tcmi', pack('Nn6', 0, 0, 0, 12, 0, 0, 0).str_repeat("\0", 13))));
    $path = filmFile('mov', null, [], null,
        [[new AuxiliaryTrack('tmcd', $entry, 25_000, null, '', 'tmcd', $header), [new AuxiliarySample(pack('N', 90_000), 0, 76_000)]]]);
    $before = besideOf($path);
    expect($before[0][4])->toBe([[bin2hex(pack('N', 90_000)), 0, 3040]])->and($before[0][1])->toBe(bin2hex($entry));
    foreach (['mov', 'mp4'] as $container) {
        $made = (string) videoMade($path, $container)->path;
        $bytes = (string) file_get_contents($made);
        expect(besideOf($made))->toBe($before)->and($bytes)->toContain($header)->and($bytes)
            ->toContain($box('tref', $box('tmcd', pack('N', 4))));
    }
    expect(implode(', ', Planning::steps(videoMade($path, 'mkv')->plan)))
        ->toContain('the time code left out: Video, Matroska has no place for “tmcd”');
});

it('keeps turn, aspect and colour of the picture', function () {
    $turned = pack('N9', 0, 0x10000, 0, 0xFFFF0000, 0, 0, 0, 0, 0x40000000);
    $stream = new PictureStream(Codec::H264, 320, 192, 1000, 25.0, avcRecord(), '', $turned, [16, 11], [9, 16, 9, true]);
    $path = filmFile('mp4', $stream);
    foreach (['mov', 'mkv', 'mp4'] as $container) {
        $path = (string) videoMade($path, $container)->path;
        $source = Opener::open($path);
        $after = $source->media instanceof VideoSource ? $source->media->pictureStream($source->picture()) : null;
        expect($after->spacing[0] / $after->spacing[1])->toEqualWithDelta(16 / 11, 0.002)
            ->and($after->colour)->toBe([9, 16, 9, true]);
        if ($container === 'mov') {
            expect($after->matrix)->toBe($turned);
        }
    }
});

it('makes MP4 of a transport stream, whole pictures from the first that can be begun with', function () {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 48000, Layout::stereo()), RateControl::exactly(128),
        [Signal::sweep(100_000), Signal::sweep(100_000)]);
    $sink = new MemorySink;
    $writer = new TransportWriter($sink, [[0x1B, null, ''], [0x0F, 'eng', '']]);
    $next = 0;
    $units = [];
    for ($index = 0; $index < 55; $index++) {
        $unit = ($index % 25 === 0 ? "\x65" : "\x41").str_repeat(chr($index + 4), 5000)."\x80";
        $units[] = md5(pack('N', strlen($unit)).$unit);
        $writer->write(0, "\0\0\0\1\x09\xF0".($index % 25 === 0 ? "\0\0\0\1".hex2bin(SEQUENCE)."\0\0\0\1".hex2bin(PICTURE)
            : '')."\0\0\1".$unit, 9000 + 3600 * (reordered($index) + 1), 9000 + 3600 * $index);
        for (; isset($packets[$next]) && $packets[$next]->start <= $index * 1920; $next++) {
            $writer->write(1, AdtsFrameParser::header($encoder->audio()->config, strlen($packets[$next]->data)).$packets[$next]->data,
                12_600 + intdiv($packets[$next]->start * 90_000, 48000));
        }
    }
    $path = Scratch::write('capture.ts', $sink->bytes());
    $result = (string) videoMade($path, 'mp4')->path;
    expect(Reader::read($path)->picture()->picture->width)->toBe(320)
        ->and(picturesOf($result)[0])->toBe($units)
        ->and(picturesOf($result)[1])->toBe(array_map(fn (int $index): int => 40 * reordered($index), range(0, 54)))
        ->and(Signal::packetsOf($result))->toBe(Signal::packetsOf($path))
        ->and(Reader::read($result)->sound()[0]->timeline->startOffset)->toBe(0);
});

it('starts with the first whole picture of a capture that began in the middle, and the sound with it', function (string $key) {
    [, $packets] = Signal::encode(new AudioFormat(Codec::Mp2, 48000, Layout::stereo()), RateControl::exactly(256),
        [Signal::sweep(96_000, 0.4, 0.0000015), Signal::sweep(96_000, 0.4, 0.0000015)]);
    $sink = new MemorySink;
    $writer = new TransportWriter($sink, [[0x1B, null, ''], [0x03, 'eng', '']]);
    $next = 0;
    for ($index = 0; $index < 45; $index++) {
        // Ten pictures need one that the capture missed.
        $head = $index % 25 === 10 ? "\0\0\0\1".hex2bin(SEQUENCE)."\0\0\0\1".hex2bin(PICTURE).$key : "\0\0\1\x41";
        $writer->write(0, "\0\0\0\1\x09\xF0".$head.str_repeat(chr($index + 4), 900)."\x80", 9000 + 3600 * $index, 9000 + 3600 * $index);
        for (; isset($packets[$next]) && $packets[$next]->start <= $index * 1920; $next++) {
            $writer->write(1, $packets[$next]->data, 9000 + intdiv($packets[$next]->start * 90_000, 48000));
        }
    }
    $path = Scratch::write('middle.ts', $sink->bytes());
    $starts = Reader::read($path)->picture()->picture->startOffset;
    $made = (string) videoMade($path, 'mov', 'wav')->path;
    $decoded = Signal::decodeFile($made);
    $whole = Signal::decodeFile($path);
    expect($starts)->toEqualWithDelta(0.4, 1e-6)
        ->and(count(picturesOf($made)[0]))->toBe(35)
        ->and(count($decoded[0]))->toBe(count($whole[0]) - 19_200)
        ->and(Signal::difference(array_slice($whole[0], 19_200), $decoded[0]))->toBeLessThan(-80.0);
})->with(['stands alone' => ["\0\0\1\x65"], 'says that all is right from there' => ["\0\0\1\x06\x06\x01\xC4\x80\0\0\1\x41"]]);

/**
 * Pictures of MPEG-2 in the order of decoding, each with its place in the order of showing: groups of one whole picture and four others
 * that two stand between.
 *
 * @return list<array{string, int}>
 */
function mpegPictures(int $groups): array
{
    $pictures = [];
    foreach (range(0, $groups - 1) as $group) {
        // Shown as I B B P B B P …; a later group begins with two between it and the one before.
        $order = $group === 0 ? [[0, 1], [3, 2], [1, 3], [2, 3], [6, 2], [4, 3], [5, 3]] : [[2, 1], [0, 3], [1, 3], [5, 2], [3, 3], [4, 3]];
        $first = $group === 0 ? 0 : 7 + 6 * ($group - 1);
        foreach ($order as $index => [$place, $kind]) {
            $head = $index > 0 ? ''
                : "\0\0\1\xB3\x14\x00\xC0\x33\xFF\xFF\xE0\x18"."\0\0\1\xB5\x14\x82\x00\x01\x00\x00"."\0\0\1\xB8\0\x08\0\x40";
            $picture = "\0\0\1\0".pack('n', $place << 6 | $kind << 3)."\xFF\xF8"."\0\0\1\xB5\x8F\xFF\xF3\x41\x80";
            $slices = '';
            foreach (range(1, 12) as $slice) {
                $slices .= "\0\0\1".chr($slice).str_repeat(chr(33 + count($pictures) % 90), 50 + 7 * count($pictures) % 40);
            }
            $pictures[] = [$head.$picture.$slices, $first + $place];
        }
    }

    return $pictures;
}

it('joins the two fields of a picture, and shows one longer whose first field is repeated', function () {
    $sequence = "\0\0\1\xB3\x14\x00\xC0\x33\xFF\xFF\xE0\x18\0\0\1\xB5\x14\x82\x00\x01\x00\x00";
    $picture = fn (int $kind, int $structure, bool $repeats): string => "\0\0\1\0".pack('n',
        $kind << 3)."\xFF\xF8\0\0\1\xB5\x8F\xFF".chr(0xF0 | $structure).chr($repeats ? 0x43 : 0x41)."\x80\0\0\1\1".str_repeat('v', 40);
    $cutter = new MpegPictures;
    $units = [$sequence.$picture(1, 1, false).$picture(2, 2, false), $picture(2, 3, true), $picture(2, 3, false), $picture(2, 3, false)];
    $found = [...$cutter->feed(implode('', $units), 1000), ...$cutter->finish()];
    expect(array_column($found, 0))->toBe($units)
        ->and(array_column($found, 2))->toBe([1000, 4600, 10_000, 13_600])
        ->and(array_column($found, 3))->toBe([true, false, false, false]);
    foreach ($found as [, $decoded, $shown]) {
        expect($decoded)->toBeLessThanOrEqual($shown);
    }
});

it('re-wraps MPEG-2 of a program stream, where few pictures have a time and packets end anywhere',
    function (int $piece, string $container) {
        $pack = "\0\0\1\xBA\x44\0\4\0\4\1\0\0\x03\xF8";
        [, $packets] = Signal::encode(new AudioFormat(Codec::Mp2, 48000, Layout::stereo()), RateControl::exactly(256),
            [Signal::sweep(144_000, 0.4, 0.0000015), Signal::sweep(144_000, 0.4, 0.0000015)]);
        $pictures = mpegPictures(10);
        $stream = implode('', array_column($pictures, 0));
        $places = [];
        foreach ($pictures as [$bytes, $shown]) {
            $places[array_sum(array_map('strlen', array_column(array_slice($pictures, 0, count($places)), 0)))] = $shown;
        }
        $bytes = '';
        $next = 0;
        $told = 0;
        for ($at = 0; $at < strlen($stream); $at += $piece) {
            $begins = array_filter($places, fn (int $place): bool => $place >= $at && $place < $at + $piece, ARRAY_FILTER_USE_KEY);
            // Only the first of a few packets tells a time: that of the first picture that begins in it.
            $tells = $begins !== [] && $told++ % 3 === 0;
            $body = ($tells ? "\x80\x80\x05".TimeStamp::of(2, 90_000 + 3600 * (reset($begins) + 2))
                : "\x80\0\0").substr($stream, $at, $piece);
            $bytes .= $pack."\0\0\1\xE0".pack('n', strlen($body)).$body;
            for (; isset($packets[$next]) && $next < count($packets) * ($at + $piece) / strlen($stream); $next++) {
                $body = "\x80\x80\x05".TimeStamp::of(2,
                    90_000 + 7200 - 18_000 + intdiv($packets[$next]->start * 90_000, 48000)).$packets[$next]->data;
                $bytes .= $pack."\0\0\1\xC0".pack('n', strlen($body)).$body;
            }
        }
        $path = Scratch::write('disc.mpg', $bytes."\0\0\1\xB9");
        $reading = Reader::read($path);
        // The sound begins 200 ms before the first picture.
        expect($reading->picture()->picture->startOffset)->toEqualWithDelta(0.2, 1e-6)
            ->and($reading->picture()->picture->perSecond)->toEqualWithDelta(25.0, 1e-6);
        $made = (string) videoMade($path, $container, $container === 'mkv' ? null : 'wav')->path;
        [$copied, $shown, $keys] = picturesOf($made);
        expect($copied)->toBe(array_map(md5(...), array_column($pictures, 0)))
            ->and($shown)->toBe(array_map(fn (int $place): int => 40 * $place, array_column($pictures, 1)))
            ->and(array_keys(array_filter($keys)))->toBe([0, 7, 13, 19, 25, 31, 37, 43, 49, 55])
            ->and(Reader::read($made)->picture()->picture->codec)->toBe(Codec::Mpeg2Video)
            ->and(Signal::difference(array_slice(Signal::decodeFile($path)[0], 9600), Signal::decodeFile($made)[0]))->toBeLessThan(-80.0);
        $source = Opener::open($made);
        $stream = $source->media instanceof VideoSource ? $source->media->pictureStream($source->picture()) : null;
        // 320 × 192 shown as 16 : 9
        expect($stream->configuration)->toStartWith("\0\0\1\xB3\x14\x00\xC0")->and($stream->spacing[0] / $stream->spacing[1])
            ->toEqualWithDelta(16 / 9 * 192 / 320, 0.01)
            ->and(fn () => videoMade($path, 'webm'))->toThrow(CannotPlan::class, 'cannot be copied as it is into Video, WebM');
    })->with(['small packets' => [333, 'mkv'], 'several pictures a packet' => [4000, 'mkv'], 'into QuickTime' => [4000, 'mov']]);

it('tells MPEG-2 in MP4 by its object type, and which profile it has', function (string $extension, int $type, Codec $codec) {
    $entry = PictureEntry::box(new PictureStream($codec, 720, 576, 90_000, 25.0,
        "\0\0\1\xB3\x2D\x02\x40\x33\xFF\xFF\xE0\x18".$extension), false);
    $at = (int) strpos($entry, 'esds');
    $esds = substr($entry, $at + 4);
    expect(ord($esds[4 + 5 + 3 + 5]))->toBe($type)->and(PictureEntry::codec($esds))->toBe($codec)
        // Lengths may be written with one byte instead of four.
        ->and(PictureEntry::codec("\0\0\0\0\x03\x30\0\x04\0\x04\x22".chr($type)))->toBe($codec);
})->with([
    'main' => ["\0\0\1\xB5\x14\x82\0\1\0\0", 0x61, Codec::Mpeg2Video],
    'simple' => ["\0\0\1\xB5\x15\x82\0\1\0\0", 0x60, Codec::Mpeg2Video],
    'high' => ["\0\0\1\xB5\x11\x42\0\1\0\0", 0x64, Codec::Mpeg2Video],
    '4:2:2' => ["\0\0\1\xB5\x18\x52\0\1\0\0", 0x65, Codec::Mpeg2Video],
    'MPEG-1' => ['', 0x6A, Codec::Mpeg1Video],
]);

it('tells MP4 of VP9 what Matroska tells of it', function (string $told, ?array $colour, string $record) {
    $entry = PictureEntry::box(new PictureStream(Codec::Vp9, 320, 192, 1000, 25.0, (string) hex2bin($told), colour: $colour), false);
    expect(bin2hex(substr($entry, (int) strpos($entry, 'vpcC') + 4, 12)))->toBe('01000000'.$record);
})->with([
    'nothing' => ['', null, '000a820202020000'], 'profile 2 of ten bits' => ['010102'.'02011e'.'03010a'.'040101', null, '021ea20202020000'],
    'profile 1, 4:4:4, colour and full range' => ['010101'.'020128'.'030108'.'040103', [9, 16, 9, true], '0128870910090000'],
    'only a level' => ['020133', [1, 1, 1, false], '0033820101010000'], 'what nobody knows' => ['0902ffff', null, '000a820202020000'],
]);

it('calls MPEG-2 of QuickTime by the one name that MP4 has for it', function () {
    $entry = Signal::box('hdv2', str_repeat("\0", 78));
    $stream = new PictureStream(Codec::Mpeg2Video, 1440, 1080, 25, 25.0, entry: $entry);
    expect(PictureEntry::box($stream, true))->toBe($entry)->and(substr(PictureEntry::box($stream, false), 4, 4))->toBe('mp4v')
        ->and(PictureEntry::codec(substr(PictureEntry::box($stream, false), strpos(PictureEntry::box($stream, false), 'esds') + 4)))
        ->toBe(Codec::Mpeg2Video);
    $h264 = new PictureStream(Codec::H264, 320, 192, 25, 25.0, entry: Signal::box('avc1', str_repeat("\0", 78)));
    expect(PictureEntry::box($h264, false))->toBe($h264->entry);
});

it('re-wraps H.265 of a transport stream', function (string $container) {
    [$bytes, $units, $record, $parameters] = Pictured::hevc(40);
    $path = Scratch::write('uhd.ts', $bytes);
    $picture = Reader::read($path)->picture()->picture;
    $made = (string) videoMade($path, $container, $container === 'mkv' ? null : 'wav')->path;
    $source = Opener::open($made);
    $stream = $source->media instanceof VideoSource ? $source->media->pictureStream($source->picture()) : null;
    [$copied, $shown, $keys] = picturesOf($made);
    expect([$picture->codec, $picture->width, $picture->height])->toBe([Codec::H265, 160, 96])
        ->and($picture->startOffset)->toEqualWithDelta(0.08, 1e-6)
        ->and($copied)->toBe(array_map(fn (string $unit): string => md5(pack('N', strlen($unit)).$unit), array_slice($units, 2)))
        ->and($shown)->toBe(array_map(fn (int $index): int => 40 * $index, range(0, 37)))
        ->and(array_keys(array_filter($keys)))->toBe([0, 10, 20, 30])
        // Profile, tier, level, chroma, bits, and all three sets as another library puts them into its record; that one leaves the
        // constraints empty.
        ->and(bin2hex(substr_replace(substr($stream->configuration, 0, 19), str_repeat("\0", 6), 6, 6)))
        ->toBe(bin2hex(substr($record, 0, 19)))
        ->and(bin2hex(substr($stream->configuration, 6, 6)))->toBe('900000000000')
        ->and(array_filter($parameters, fn (string $set): bool => ! str_contains($stream->configuration, $set)))->toBe([]);
})->with(['mkv', 'mp4', 'mov']);

it('gives bytes before the first start code of a packet to the picture before', function (string $container, int $late) {
    [$bytes, $units] = Pictured::hevc(40, $late);
    [$copied, $shown] = picturesOf((string) videoMade(Scratch::write('slices.ts', $bytes), $container,
        $container === 'mkv' ? null : 'wav')->path);
    expect($copied)->toBe(array_map(fn (string $unit): string => md5(pack('N', strlen($unit)).$unit), array_slice($units, 2)))
        ->and($shown)->toBe(array_map(fn (int $index): int => 40 * $index, range(0, 37)));
})->with(['mkv', 'mp4'])->with([1, 7, 40]);

it('copies pictures that come with a bitmap header into Matroska, and says that no other kind takes them', function (string $from) {
    $pictures = array_map(fn (int $index): string => str_repeat(chr(40 + $index), 300 + 17 * $index), range(0, 49));
    $path = $from === 'asf' ? Scratch::write('clip.wmv', Pictured::windowsMedia($pictures))
        : Scratch::write('clip.avi', Pictured::avi($pictures));
    $reading = Reader::read($path);
    $label = $from === 'asf' ? 'Windows Media Video' : 'MPEG-4 Visual';
    expect([$reading->picture()->picture->label, $reading->picture()->picture->width, $reading->picture()->picture->height])
        ->toBe([$label, 320, 180])
        ->and($reading->picture()->picture->perSecond)->toEqualWithDelta(25.0, 0.001)
        ->and(fn () => videoMade($path, 'mp4'))
        ->toThrow(CannotPlan::class, "The picture is $label, which cannot be copied as it is into Video, MP4")
        ->and(fn () => videoMade($path, 'mov'))->toThrow(CannotPlan::class);
    $made = (string) videoMade($path, 'mkv')->path;
    [$copied, $shown, $keys] = picturesOf($made);
    $again = Reader::read($made);
    $source = Opener::open($made);
    $stream = $source->media instanceof VideoSource ? $source->media->pictureStream($source->picture()) : null;
    expect($copied)->toBe(array_map(md5(...), $pictures))
        ->and($shown)->toBe(array_map(fn (int $index): int => 40 * $index, range(0, 49)))
        ->and(array_keys(array_filter($keys)))->toBe([0, 12, 24, 36, 48])
        ->and([$again->picture()->picture->label, $stream->bitmapHeader])
        ->toBe([$label, Pictured::header($from === 'asf' ? 'WMV3' : 'XVID')])
        ->and(Signal::packetsOf($made))->toBe(Signal::packetsOf($path))
        // A plan that knew the picture by another name makes nothing wrong of it.
        ->and(function () use ($path): void {
            $plan = Planning::plan(Reader::read($path),
                Spec::video(VideoOutputs::named('mkv'), null, RateControl::none(), Scratch::folder()));
            (new Maker)->make($plan->withTarget(new Target('mp4', $plan->target->folder, 'x.mp4', IfExists::Number, 0)), 'old');
        })->toThrow(CannotPlan::class, 'into Video, MP4')
        // What was copied can be copied again.
        ->and(picturesOf((string) videoMade($made, 'mkv')->path)[0])->toBe($copied);
})->with(['asf', 'avi']);

it('copies the fonts that a video brings for its subtitles, and leaves its cover where it belongs', function () {
    $fonts = [new Attachment('Lift Sans.ttf', 'font/ttf', 'for the titles', random_bytes(70_000)),
        new Attachment('notes.txt', 'text/plain', '', 'Wrenfield')];
    $cover = "\xFF\xD8\xFF\xE0".str_repeat('c', 500);
    $path = filmFile('mkv', attachments: [new Attachment('cover.jpg', 'image/jpeg', '', $cover), ...$fonts]);
    $again = (string) videoMade($path, 'mkv')->path;
    foreach ([$path, $again] as $file) {
        $opened = Opener::open($file);
        expect($opened->media instanceof AttachmentSource ? $opened->media->attachments() : null)->toEqual($fonts)
            ->and($opened->media->tags()->cover?->bytes)->toBe($cover);
    }
    expect(strpos((string) file_get_contents((string) videoMade($path, 'mp4')->path), 'Lift Sans.ttf'))->toBeFalse();
});

it('puts the index of MP4 first', function () {
    $bytes = (string) file_get_contents((string) videoMade(filmFile('mkv'), 'mp4')->path);
    expect(strpos($bytes, 'moov'))->toBeLessThan((int) strpos($bytes, 'mdat'));
});

it('says what cannot become a video, and why', function () {
    $video = filmFile('mp4');
    expect(fn () => videoMade($video, 'webm'))->toThrow(CannotPlan::class, 'cannot be copied as it is into Video, WebM')
        ->and(fn () => videoMade(Scratch::write('a.wav', Signal::wave([Signal::sweep(4800)], SampleFormat::signed(16))), 'mp4'))
        ->toThrow(CannotPlan::class, 'no picture')
        ->and(fn () => videoMade($video, 'mp4', 'vorbis'))->toThrow(CannotPlan::class, 'cannot carry Vorbis');
});
