<?php

declare(strict_types=1);

use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Containers;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\Track;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\WriterTrack;
use Octavox\Core\Tests\Support\Signal;

const FIXTURES = __DIR__.'/fixtures/';

/** @return array<string, mixed> */
function otherPackets(): array
{
    return json_decode((string) file_get_contents(FIXTURES.'packets.json'), true);
}

/** @return list<string> */
function packetBytes(Demuxer $media, Track $track, int $from = 0, int $until = PHP_INT_MAX >> 2): array
{
    $bytes = [];
    foreach ($media->packets($track, $from, $until) as $packet) {
        $bytes[] = $packet->data;
    }

    return $bytes;
}

function openBytes(string $bytes): Demuxer
{
    return Containers::open(new MemoryBytes($bytes, 'test.mp4'));
}

it('gives back byte for byte the packets that another writer put into MP4', function (string $file) {
    $other = otherPackets();
    $media = Containers::openFile(FIXTURES.$file);
    $track = $media->tracks()[0];
    expect(array_map(base64_encode(...), packetBytes($media, $track)))->toBe($other['packets'])
        ->and($track->sound->rate)->toBe(48000)->and($track->sound->layout->name())->toBe('stereo')
        ->and($track->timeline->samples())->toBe(1024 * count($other['packets']));
})->with(['other-plain.mp4', 'other-fragmented.mp4'])->group('slow');

it('reads what a browser recorded: fragments, two tracks, a codec of its own', function () {
    $media = Containers::openFile(FIXTURES.'recorder.mp4');
    [$picture, $sound] = $media->tracks();
    $packets = iterator_to_array((fn () => yield from $media->packets($sound, 0, PHP_INT_MAX >> 2))(), false);
    $bytes = array_sum(array_map(fn (Packet $packet): int => strlen($packet->data), $packets));
    expect($picture->picture->codec)->toBe(Codec::Vp9)->and([$picture->picture->width, $picture->picture->height])->toBe([64, 48])
        ->and($sound->sound->codec)->toBe(Codec::Opus)
        ->and($bytes)->toBe($sound->codedBytes)
        // Opus begins each packet with its table of contents: one configuration, one number of channels throughout.
        ->and(count(array_unique(array_map(fn (Packet $packet): int => ord($packet->data[0]) >> 3, $packets))))->toBe(1)
        ->and($packets[count($packets) - 1]->start + $packets[count($packets) - 1]->length)->toEqualWithDelta($sound->timeline->coded, 960)
        // What the encoder put first is told in the set-up only; a browser leaves it out.
        ->and($sound->timeline->samples())->toBe(99_840)
        ->and($sound->seconds())->toBeBetween(1.8, 2.6);
});

it('reads its own movies with the index first or last', function (bool $first) {
    $sounds = [Signal::sweep(50000), Signal::sweep(50000, 0.2)];
    $aac = Signal::aacTrack($sounds);
    $pcm = Signal::pcmTrack($sounds, SampleFormat::signed(16, true));
    $media = openBytes(Signal::movie([Signal::pictureTrack(26), $aac, $pcm], $first));
    [$picture, $one, $two] = $media->tracks();
    expect($picture->picture->codec)->toBe(Codec::H264)->and($picture->picture->perSecond)->toBe(25.0)
        ->and(packetBytes($media, $one))->toBe($aac->packets)
        ->and(implode('', packetBytes($media, $two)))->toBe(implode('', $pcm->packets))
        ->and($one->language)->toBe('eng')->and($two->language)->toBeNull()
        ->and([$one->timeline->segments[0]->from, $one->timeline->samples()])->toBe([1600, 50000])
        ->and($two->timeline->samples())->toBe(50000);
})->with([true, false]);

it('gives only the packets of a wanted stretch, with what the codec needs before', function () {
    $track = Signal::aacTrack([Signal::sweep(100_000)]);
    $media = openBytes(Signal::movie([Signal::pictureTrack(60), $track]));
    $packets = iterator_to_array((fn () => yield from $media->packets($media->tracks()[1], 40_000, 42_000))(), false);
    expect(array_map(fn (Packet $packet): int => $packet->start, $packets))->toBe([37888, 38912, 39936, 40960, 41984]);
});

it('gives PCM to the sample', function () {
    $track = Signal::pcmTrack([Signal::steps(60_000, 3)], SampleFormat::signed(16));
    $media = openBytes(Signal::movie([Signal::pictureTrack(30), $track], brand: 'qt  '));
    expect(implode('', packetBytes($media, $media->tracks()[1], 23_999, 24_002)))
        ->toBe(substr(implode('', $track->packets), 2 * 23_999, 6));
});

it('takes 64-bit boxes, boxes up to the end of the file, and unknown ones between', function () {
    $plain = Signal::movie([Signal::aacTrack([Signal::sweep(20000)])], false);
    $type = substr($plain, 0, $length = unpack('N', $plain)[1]);
    $data = substr($plain, $length, $dataLength = unpack('N', substr($plain, $length, 4))[1]);
    $index = substr($plain, $length + $dataLength);
    $shift = fn (string $index, int $by): string => preg_replace_callback('/stco\0\0\0\0(....)(.*?)(?=....trak|....udta|$)/s',
        fn (array $match): string => "stco\0\0\0\0".$match[1].pack('N*',
            ...array_map(fn (int $at): int => $at + $by, unpack('N'.unpack('N', $match[1])[1], $match[2]))).substr($match[2],
                4 * unpack('N', $match[1])[1]), $index);
    $expected = packetBytes($media = openBytes($plain), $media->tracks()[0]);
    $long = $type.Signal::box('mdat', substr($data, 8), true).$shift($index, 8);
    $open = $type.Signal::box('free', 'xxxx').Signal::box('what', 'ever').$shift($index, 24 + 0).pack('N', 0).substr($data, 4);
    expect(packetBytes($media = openBytes($long), $media->tracks()[0]))->toBe($expected);
    // The index now stands before the data, so the data has moved by the index's length too.
    $open = $type.Signal::box('free', 'xxxx').Signal::box('what', 'ever').$shift($index, 24 + strlen($index)).pack('N', 0).substr($data, 4);
    expect(packetBytes($media = openBytes($open), $media->tracks()[0]))->toBe($expected);
});

it('honours late starts and edits in any order', function () {
    $late = openBytes(Signal::movie([Signal::pictureTrack(50), Signal::aacTrack([Signal::sweep(30000)], lateTicks: 12_345)]));
    expect($late->tracks()[1]->timeline->startOffset)->toBe(12_345)->and($late->tracks()[1]->timeline->samples())->toBe(30_000);

    $edits = pack('NNN', 4800, 9600, 0x10000).pack('NNN', 2400, 0xFFFFFFFF, 0x10000).pack('NNN', 4800, 1600, 0x10000);
    $movie = Signal::movie([Signal::aacTrack([Signal::sweep(30000)])], false);
    $old = substr($movie, strpos($movie, 'elst') - 4, 28);
    $new = Signal::box('elst', pack('NN', 0, 3).$edits);
    $grow = strlen($new) - strlen($old);
    foreach (['moov', 'trak', 'edts'] as $type) {
        $at = strpos($movie, $type) - 4;
        $movie = substr_replace($movie, pack('N', unpack('N', substr($movie, $at, 4))[1] + $grow), $at, 4);
    }
    $timeline = openBytes(str_replace($old, $new, $movie))->tracks()[0]->timeline;
    expect(array_map(fn ($segment): array => [$segment->from, $segment->length], $timeline->segments))
        ->toBe([[9600, 4800], [null, 2400], [1600, 4800]]);
});

it('takes the exact length from the media where an edit is rounded to a coarse movie tick', function () {
    // 30,001 samples are 0.62502… s: 625 thousandths, 30,000 samples.
    $media = openBytes(Signal::movie([Signal::pcmTrack([Signal::steps(30_001, 1)], SampleFormat::signed(16))], timescale: 1000));
    expect($media->tracks()[0]->timeline->samples())->toBe(30_001);
});

it('reads delay and length from a free-form comment where there is no edit', function () {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 44100, Layout::mono()), RateControl::exactly(96),
        [Signal::sweep(40_000)]);
    $track = WriterTrack::sound($encoder->audio(), $packets, 0, 1024 * count($packets));
    $movie = Signal::movie([$track], false, 'M4A ', Tags::none()->with(TagField::Title, 'x'), 44100);
    $comment = Signal::box('----',
        Signal::box('mean', "\0\0\0\0com.apple.iTunes").Signal::box('name', "\0\0\0\0iTunSMPB").Signal::box('data',
            pack('NN', 1, 0).sprintf(' 00000000 %08X %08X %016X 00000000', $encoder->delay(),
                1024 * count($packets) - $encoder->delay() - 40_000, 40_000)));
    $grow = strlen($comment);
    foreach (['moov', 'udta', 'meta', 'ilst'] as $type) {
        $at = strrpos($movie, $type) - 4;
        $movie = substr_replace($movie, pack('N', unpack('N', substr($movie, $at, 4))[1] + $grow), $at, 4);
    }
    $timeline = openBytes($movie.$comment)->tracks()[0]->timeline;
    expect([$timeline->segments[0]->from, $timeline->samples()])->toBe([1600, 40_000]);
});

it('reads tags and cover', function () {
    $tags = Tags::none()->with(TagField::Title, 'Höhe – 高さ')->with(TagField::Artist, 'A')->with(TagField::Comment, "two\nlines")
        ->withCover(Cover::recognise("\xFF\xD8\xFFpicture"));
    $read = openBytes(Signal::movie([Signal::aacTrack([Signal::sweep(4000)])], true, 'M4A ', $tags))->tags();
    expect($read->values())->toBe(['title' => 'Höhe – 高さ', 'artist' => 'A', 'comment' => "two\nlines"])
        ->and($read->cover->bytes)->toBe("\xFF\xD8\xFFpicture");
});

it('reads the index of a video and none of its pictures', function () {
    $path = tempnam(sys_get_temp_dir(), 'video');
    file_put_contents($path, Signal::movie([Signal::pictureTrack(100, 60_000), Signal::aacTrack([Signal::sweep(192_000)])]));
    $bytes = FileBytes::open($path);
    $media = Containers::open($bytes);
    $index = $bytes->bytesRead();
    $sound = array_sum(array_map(strlen(...), packetBytes($media, $media->tracks()[1])));
    expect(filesize($path))->toBeGreaterThan(6_000_000)
        ->and($index)->toBeLessThan(10_000)
        ->and($bytes->bytesRead() - $index - $sound)->toBeLessThan(10_000);
    unlink($path);
});
