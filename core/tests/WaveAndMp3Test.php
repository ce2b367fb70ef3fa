<?php

declare(strict_types=1);

use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Containers;
use Octavox\Core\Container\MpegAudio\InfoHeader;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Wave\WaveWriter;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Findings\FindingKinds;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\ApeTag;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\RiffInfo;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** What the sample library, an independent reader, says of a file: frames, rate, channels, samples of the first channel. */
function bySampleLibrary(string $path): array
{
    $library = FFI::cdef('typedef struct { int64_t frames; int samplerate; int channels; int format; int sections; int seekable; } '
        .'SF_INFO; void *sf_open(const char *path, int mode, SF_INFO *info); int64_t sf_readf_float(void *f, float *to, int64_t '
            .'frames); int sf_close(void *f);', 'libsndfile.so.1');
    $info = $library->new('SF_INFO');
    $file = $library->sf_open($path, 0x10, FFI::addr($info));
    if ($file === null) {
        return [];
    }
    $count = min(1000, $info->frames);
    $room = FFI::new('float['.max(1, $count * $info->channels).']');
    $library->sf_readf_float($file, $room, $count);
    $samples = [];
    for ($index = 0; $index < $count; $index++) {
        $samples[] = $room[$index * $info->channels];
    }
    $library->sf_close($file);

    return [$info->frames, $info->samplerate, $info->channels, $samples];
}

/** Exact length that the MPEG audio library's own gapless reading finds. */
function byMpegLibrary(string $path): int
{
    $library = FFI::cdef('int mpg123_init(void); void *mpg123_new(const char *d, int *e); int mpg123_param(void *h, int t, long v, '
        .'double f); int mpg123_open(void *h, const char *path); int mpg123_scan(void *h); long mpg123_length(void *h); void '
            .'mpg123_delete(void *h);', 'libmpg123.so.0');
    $library->mpg123_init();
    $handle = $library->mpg123_new(null, null);
    $library->mpg123_param($handle, 2, 0x20 | 0x40, 0.0);
    $library->mpg123_open($handle, $path);
    $library->mpg123_scan($handle);
    $length = $library->mpg123_length($handle);
    $library->mpg123_delete($handle);

    return $length;
}

it('writes WAV that an independent reader finds exact', function (SampleFormat $pcm, int $channels) {
    $sounds = array_map(fn (int $channel): array => Signal::steps(3001, $channel), range(1, $channels));
    $path = Scratch::write('a.wav', $bytes = Signal::wave($sounds, $pcm, 44100, Tags::none()->with(TagField::Title, 'odd')));
    [$frames, $rate, $count, $samples] = bySampleLibrary($path);
    $track = Containers::openFile($path)->tracks()[0];
    expect([$frames, $rate, $count])->toBe([3001, 44100, $channels])
        ->and($samples)->toEqualWithDelta(array_slice($sounds[0], 0, 1000),
            $pcm->kind === SampleKind::MuLaw ? 0.02 : 2.0 ** (1 - min(24, $pcm->bits)))
        ->and([$track->timeline->samples(), $track->sound->layout->name()])->toBe([3001, Layout::undeclared($channels)->name()])
        ->and($track->sound->pcm->equals($pcm))->toBeTrue()
        ->and(Containers::openFile($path)->tags()->get(TagField::Title))->toBe('odd')
        ->and(strlen($bytes))->toBe(WaveWriter::predict($track->sound, 3001, Tags::none()->with(TagField::Title, 'odd')));
})->with([
    [SampleFormat::unsigned8(), 1], [SampleFormat::signed(16), 1], [SampleFormat::signed(16), 2], [SampleFormat::signed(24), 2],
    [SampleFormat::signed(24), 1],
    [SampleFormat::signed(32), 2], [SampleFormat::float(32), 2], [SampleFormat::float(64), 1], [SampleFormat::signed(16), 6],
    [new SampleFormat(SampleKind::MuLaw, 8), 1],
]);

it('writes the channel mask of 5.1 and reads it back', function () {
    $sink = new MemorySink;
    $audio = AudioFormat::pcm(SampleFormat::signed(16), 48000, Layout::fiveOne());
    (new WaveWriter($sink, $audio, Tags::none(), 0))->finish(0, $audio);
    expect(unpack('V', substr($sink->bytes(), 12 + 8 + 20, 4))[1])->toBe(0x60F)
        ->and(Containers::open(new MemoryBytes($sink->bytes()))->tracks()[0]->sound->layout->equals(Layout::fiveOne()))->toBeTrue();
});

it('writes and reads the 64-bit form beyond 4 GiB', function () {
    $audio = AudioFormat::pcm(SampleFormat::signed(16), 48000, Layout::stereo());
    $frames = 1_200_000_000;
    $sink = new MemorySink;
    new WaveWriter($sink, $audio, Tags::none(), $frames);
    $header = $sink->bytes();
    $path = Scratch::sparse('long.wav', strlen($header) + 4 * $frames,
        [0 => $header, strlen($header) + 4 * 1_199_999_999 => "\x00\x40\x00\xC0"]);
    [$found] = bySampleLibrary($path);
    $media = Containers::openFile($path);
    $last = '';
    foreach ($media->packets($media->tracks()[0], $frames - 1, $frames) as $packet) {
        $last .= $packet->data;
    }
    expect(substr($header, 0, 4))->toBe('RF64')->and($found)->toBe($frames)
        ->and($media->tracks()[0]->timeline->samples())->toBe($frames)
        ->and($last)->toBe("\x00\x40\x00\xC0")
        ->and(strlen($header) + 4 * $frames)->toBe(WaveWriter::predict($audio, $frames, Tags::none()));
});

it('finds all the sound of recordings that were never finished', function (int $riff, int $data, ?string $code) {
    $bytes = Signal::wave([Signal::steps(5000, 9)], SampleFormat::signed(16));
    $bytes = substr_replace(substr_replace($bytes, pack('V', $riff), 4, 4), pack('V', $data), 40, 4);
    $media = Containers::open(new MemoryBytes($bytes));
    expect($media->tracks()[0]->timeline->samples())->toBe(5000)
        ->and(array_map(fn ($one): string => FindingKinds::mapper()->word($one->kind), $media->diagnostics())[0] ?? null)->toBe($code);
})->with([[0, 0, 'never-finished'], [36, 0, 'never-finished'], [0xFFFFFFFF, 0xFFFFFFFF, 'never-finished'], [20_000, 20_000, 'cut-short'],
    [10_036, 10_000, null]]);

it('reads chunks in any order, odd ones padded, and 20 bits in 24', function () {
    $format = 'fmt '.pack('VvvVVvv', 16, 1, 1, 48000, 144000, 3, 20);
    $bytes = 'RIFF'.pack('V', 0).'WAVE'.'odd '.pack('V', 3)."abc\0".$format.'data'.pack('V', 3)."\x01\x02\x03\0".'LIST'.pack('V',
        14).'INFOINAM'.pack('V', 2)."x\0";
    $media = Containers::open(new MemoryBytes($bytes));
    expect($media->tracks()[0]->sound->bits())->toBe(24)->and($media->tracks()[0]->timeline->samples())->toBe(1)
        ->and($media->tags()->get(TagField::Title))->toBe('x');
});

it('writes MP3 whose exact length an independent reader finds', function (int $count, int $rate, RateControl $rateControl) {
    $path = Scratch::write('a.mp3',
        Signal::mp3([Signal::sweep($count, 0.4, 0.000002), Signal::sweep($count, 0.3, 0.000001)], $rateControl, $rate));
    $track = Containers::openFile($path)->tracks()[0];
    [$left] = Signal::decodeFile($path);
    expect(byMpegLibrary($path))->toBe($count)
        ->and($track->timeline->samples())->toBe($count)
        ->and(count($left))->toBe($count)
        ->and(Signal::difference(Signal::sweep($count, 0.4, 0.000002), $left, 500))->toBeLessThan(-22.0);
})->with([[48000, 48000, RateControl::exactly(192)], [44_101, 44100, RateControl::variable(2)],
    [30_000, 22050, RateControl::exactly(64)]]);

it('writes MP3 of a single sample', function () {
    $path = Scratch::write('one.mp3', Signal::mp3([[0.5]], RateControl::exactly(128)));
    expect(byMpegLibrary($path))->toBe(1)->and(Signal::decodeFile($path))->toHaveCount(1)
        ->and(Signal::decodeFile($path)[0])->toHaveCount(1);
});

it('tells a hundred places to seek to, and constant from variable rate', function () {
    $constant = Signal::mp3([Signal::sweep(480_000)], RateControl::exactly(64));
    $header = InfoHeader::parse(substr($constant, 0, 1000));
    $places = array_values(unpack('C100', substr($constant, strpos($constant, 'Info') + 16, 100)));
    $sorted = $places;
    sort($sorted);
    expect($header->variable)->toBeFalse()->and($places)->toBe($sorted)->and($places[50])->toBeBetween(122, 134)
        ->and(strpos(Signal::mp3([[...array_fill(0, 96_000, 0.0), ...Signal::steps(96_000, 4)]], RateControl::variable(4)),
            'Xing'))->toBeInt();
});

it('reads MP3 without an info header, with tags around and junk between frames', function () {
    $bytes = Signal::mp3([Signal::sweep(48_000)], RateControl::exactly(128));
    $first = strlen($bytes) > 0 ? InfoHeader::frameBytes(48000, 1) : 0;
    $frames = substr($bytes, $first);
    $half = 384 * 20;
    $file = Id3v2::write(Tags::none()->with(TagField::Title, 'found')).substr($frames, 0, $half).'some junk in between'.substr($frames,
        $half).str_pad('TAGold', 128, "\0");
    $media = Containers::open(new MemoryBytes($file));
    expect($media->tracks()[0]->timeline->samples())->toBe(intdiv(strlen($frames), 384) * 1152)
        ->and($media->tags()->get(TagField::Title))->toBe('found');
});

it('writes tags as ID3v2 and INFO that come back', function () {
    $tags = Tags::none();
    foreach (TagField::cases() as $field) {
        $tags = $tags->with($field, 'wért '.$field->value);
    }
    $read = Id3v2::read(Id3v2::write($tags->withCover(Cover::recognise("\x89PNG\r\n\x1A\nrest"))));
    expect($read->values())->toBe($tags->values())->and($read->cover->bytes)->toBe("\x89PNG\r\n\x1A\nrest")
        ->and(Id3v2::length(Id3v2::write($tags)))->toBe(strlen(Id3v2::write($tags)))
        ->and(array_keys(RiffInfo::read(substr(RiffInfo::write($tags), 4))->values()))
        ->toBe(['title', 'artist', 'album', 'track', 'year', 'genre', 'comment', 'copyright', 'composer', 'lyricist',
            'language', 'encoded_by']);
});

it('reads older tags: UTF-16, Latin-1, three-letter names', function () {
    $frame3 = fn (string $name, string $data): string => $name.pack('N', strlen($data))."\0\0".$data;
    $body = $frame3('TIT2', "\x01\xFF\xFE".mb_convert_encoding('Große Fahrt', 'UTF-16LE'))."TPE1\0\0\0\5\0\0\0Z\xFCge"
        .$frame3('TYER', "\x002019");
    $old = 'TT2'."\0\0\4"."\0abc".'TAL'."\0\0\3"."\0xy";
    expect(Id3v2::read("ID3\x03\0\0\0\0\x02\0".$body.str_repeat("\0", 20))->values())
        ->toBe(['title' => 'Große Fahrt', 'artist' => 'Züge', 'year' => '2019'])
        ->and(Id3v2::read("ID3\x02\0\0\0\0\0\x20".$old.str_repeat("\0", 20))->values())->toBe(['title' => 'abc', 'album' => 'xy']);
});

it('keeps control characters and broken text out of tags', function () {
    expect(Tags::none()->with(TagField::Title, "a\x00b\x07c\xFFd")->get(TagField::Title))->toBe('abc?d')
        ->and(Tags::none()->with(TagField::Title, "\x01 ")->get(TagField::Title))->toBeNull();
});

it('reads old tags and APE tags at the end of MP3, and the other kind of header at its begin', function () {
    $sound = Signal::mp3([Signal::sweep(48_000)], RateControl::exactly(128));
    $old = 'TAG'.str_pad('Old title', 30, "\0").str_pad("Caf\xE9", 30, "\0").str_repeat("\0", 30).'1994'.str_repeat("\0", 28)."\0\x07\xFF";
    $ape = ApeTag::write(Tags::none()->with(TagField::Title, 'New title')->with(TagField::Genre, 'Brass'));
    $media = Containers::open(new MemoryBytes($sound.$ape.$old));
    expect($media->tags()->values())
        ->toBe(['title' => 'New title', 'artist' => 'Café', 'track' => '7', 'year' => '1994', 'genre' => 'Brass'])
        ->and($media->tracks()[0]->timeline->samples())->toBe(48_000)
        ->and($media->tracks()[0]->codedBytes)->toBe(Containers::open(new MemoryBytes($sound))->tracks()[0]->codedBytes);

    // The first frame holds no sound then; without delay and padding all frames are presented whole.
    $header = FrameHeader::parse($sound);
    for ($at = $header->bytes, $frames = 0; $at < strlen($sound); $frames++) {
        $at += FrameHeader::parse(substr($sound, $at, 4))->bytes;
    }
    $first = str_pad(substr($sound, 0, 4).str_repeat("\0", 32).'VBRI'.pack('n3NN', 1, 0, 75, strlen($sound), $frames),
        $header->bytes, "\0");
    expect(Containers::open(new MemoryBytes($first.substr($sound, $header->bytes)))->tracks()[0]->timeline->samples())
        ->toBe($frames * 1152);
});

it('reads the marks of a recording with their names, and the notes of a recorder', function () {
    $chunk = fn (string $name, string $body): string => $name.pack('V', strlen($body)).$body.(strlen($body) % 2 === 1 ? "\0" : '');
    $cue = fn (int $number, int $place): string => pack('VV', $number, $place).'data'.pack('V3', 0, 0, $place);
    $wave = Signal::wave([Signal::sweep(96_000)], SampleFormat::signed(16));
    $wave .= $chunk('cue ', pack('V', 3).$cue(7, 72_000).$cue(2, 0).$cue(9, 36_000))
        .$chunk('LIST', 'adtl'.$chunk('labl', pack('V', 2)."The gate\0").$chunk('note', pack('V', 2)."never mind\0").$chunk('labl',
            pack('V', 7)."Aboard\0"))
        .$chunk('iXML', '<?xml version="1.0" encoding="UTF-8"?><BWFXML><PROJECT>The Wrenfield '
            .'reopening</PROJECT><SCENE>12</SCENE><TAKE>3</TAKE><NOTE>wind &amp; water</NOTE></BWFXML>');
    $path = Scratch::write('marks.wav', $wave);
    $reading = Reader::read($path);
    expect(array_map(fn ($chapter) => $chapter->toArray(), $reading->chapters))
        ->toBe([['starts' => 0.0, 'title' => 'The gate'], ['starts' => 0.75, 'title' => 'Mark 2'], ['starts' => 1.5, 'title' => 'Aboard']])
        ->and($reading->tags->get(TagField::Title))->toBe('Scene 12, take 3')
        ->and($reading->tags->get(TagField::Album))->toBe('The Wrenfield reopening')
        ->and($reading->tags->get(TagField::Comment))->toBe('wind & water');
});

it('takes no harm from notes that are not what they say', function (string $xml) {
    $path = Scratch::write('notes.wav', Signal::wave([Signal::sweep(4800)], SampleFormat::signed(16)).'iXML'.pack('V', strlen($xml)).$xml);
    expect(Reader::read($path)->tags->get(TagField::Title))->toBeNull()
        ->and(Reader::read($path)->sound()[0]->timeline->samples())->toBe(4800);
})->with(['<BWFXML><SCENE>', '<!DOCTYPE a [<!ENTITY x SYSTEM "file:///etc/passwd">]><BWFXML><SCENE>&x;</SCENE></BWFXML>', '']);

it('carries the time of day of broadcast WAV, at the rate of the result', function () {
    $tags = Tags::none()->with(TagField::Comment, 'Slate 12, take 3')->withTimeReference(48000 * 3600);
    $path = Scratch::write('slate.wav', Signal::wave([Signal::sweep(48_000)], SampleFormat::signed(24), 48000, $tags));
    [$frames, $rate] = bySampleLibrary($path);
    $half = (new Maker)
        ->make(Planning::plan(Reader::read($path),
            Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder(), 24000, 16)), 'half');
    expect([$frames, $rate])->toBe([48_000, 48000])
        ->and(Containers::openFile($path)->tags()->timeReference)->toBe(48000 * 3600)
        ->and(Containers::openFile($path)->tags()->get(TagField::Comment))->toBe('Slate 12, take 3')
        ->and(Containers::openFile((string) $half->path)->tags()->timeReference)->toBe(24000 * 3600);
});
