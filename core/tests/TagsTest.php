<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Ogg\OpusGain;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Tag\Genre;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** A frame of ID3v2.3. */
function frame3(string $name, string $data, int $flags = 0): string
{
    return $name.pack('Nn', strlen($data), $flags).$data;
}

/** A tag of ID3v2.3 or 2.4 with its flags. */
function tag(int $version, int $flags, string $body): string
{
    $size = strlen($body);

    return 'ID3'.chr($version)."\0".chr($flags).chr($size >> 21 & 127).chr($size >> 14 & 127).chr($size >> 7 & 127).chr($size & 127).$body;
}

/** @return array<string, list<string>> what another library reads of a file, by the names that it has for all kinds of tags */
function otherReads(string $path): array
{
    exec('/usr/bin/python3 '.escapeshellarg(__DIR__.'/fixtures/tags.py').' '.escapeshellarg($path).' 2>&1', $said, $status);
    expect($status)->toBe(0, implode("\n", $said));

    return json_decode(implode("\n", $said), true);
}

it('carries every field and every value from one kind of file to another, as another library reads them', function (string $format) {
    $tags = Tags::none()->with(TagField::Title, 'Lift opens')->with(TagField::Artist, 'Anna Wren', 'Bob Field')
        ->with(TagField::Composer, 'C. Lock')->with(TagField::Isrc, 'GBXYZ1234567')
        ->with(TagField::Genre, 'Rock', 'Folk')->with(TagField::Lyrics, "line one\nline two")->with(TagField::Track, '3/9')
        ->with(TagField::Tempo, '120')
        ->addingFree('REPLAYGAIN_TRACK_GAIN', '-3.20 dB')->addingFree('MUSICBRAINZ_ALBUMID', 'aaaa-bbbb')
        ->addingFree('Boat name', 'Heron', 'Grebe');
    $path = Scratch::write('src.mp3', Signal::mp3([Signal::sweep(30_000)], RateControl::exactly(128), tags: $tags));
    $made = (new Maker)
        ->make(Planning::plan(Reader::read($path), Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder())), 'tags');
    // Opus has fields of its own for gains.
    $carried = $format === 'opus' ? OpusGain::inPlaceOfReplayGain($tags) : $tags;
    expect(otherReads($made->path))->toBe(array_filter([
        'title' => ['Lift opens'], 'artist' => ['Anna Wren', 'Bob Field'], 'composer' => ['C. Lock'], 'isrc' => ['GBXYZ1234567'],
        'genre' => ['Rock', 'Folk'], 'lyrics' => ["line one\nline two"],
        'track' => ['3/9'], 'tempo' => ['120'], 'gain' => $format === 'opus' ? null : ['-3.20 dB'], 'album id' => ['aaaa-bbbb'],
        'free' => ['Heron', 'Grebe'],
    ]))->and(Reader::read($made->path)->tags->toArray())->toEqual($carried->toArray());
})->with(['mp3', 'flac', 'aac', 'vorbis', 'opus', 'wav', 'aiff']);

it('reads what tags of other programs hide: extended headers, unsynchronised and compressed frames, names with a space', function () {
    $title = frame3('TIT2', "\0Lift");
    $loud = "\x01\xFF\xFE".mb_convert_encoding('ÿþ', 'UTF-16LE');
    expect(Id3v2::read(tag(3, 0x40, pack('NnN', 6, 0, 0).$title.str_repeat("\0", 20)))->get(TagField::Title))->toBe('Lift')
        ->and(Id3v2::read(tag(3, 0x80, str_replace("\xFF", "\xFF\0", frame3('TIT2', $loud)).str_repeat("\0", 20)))
            ->get(TagField::Title))->toBe('ÿþ')
        ->and(Id3v2::read(tag(3, 0, frame3('TIT2', pack('N', 5).gzcompress("\0Lift"), 0x80).str_repeat("\0", 20)))
            ->get(TagField::Title))->toBe('Lift')
        ->and(Id3v2::read(tag(3, 0, frame3('TT2 ', "\0Lift").str_repeat("\0", 20)))->get(TagField::Title))->toBe('Lift');
    // Version 2.4: each frame for itself, with the length before it.
    $hidden = str_replace("\xFF", "\xFF\0", $loud);
    $frame = 'TIT2'.pack('C4n', 0, 0, 0, strlen($hidden) + 4, 3).pack('C4', 0, 0, 0, strlen($loud)).$hidden;
    expect(Id3v2::read(tag(4, 0x80, $frame.str_repeat("\0", 20)))->get(TagField::Title))->toBe('ÿþ');
});

it('takes genres by their numbers, dates together, and comments for people only', function () {
    $tags = Id3v2::read(tag(3, 0, frame3('TCON', "\0(17)(RX)Boat songs").frame3('TYER', "\x001994").frame3('TDAT',
        "\x002305").frame3('COMM', "\0engiTunSMPB\0 00000000 00000210 00000A2C").frame3('COMM', "\0eng\0for people").str_repeat("\0", 20)));
    expect($tags->all(TagField::Genre))->toBe(['Rock', 'Remix', 'Boat songs'])->and($tags->get(TagField::Year))->toBe('1994-05-23')
        ->and($tags->get(TagField::Comment))->toBe('for people')
        ->and(Genre::words('12'))->toBe(['Other'])->and(Genre::words('((not a number)'))->toBe(['(not a number)']);
});

it('drops what tells of a level that the result no longer has', function () {
    $tags = Tags::none()->addingFree('REPLAYGAIN_TRACK_GAIN', '-3 dB')->addingFree('Boat', 'Heron');
    expect($tags->withoutLevels()->free())->toBe(['BOAT' => ['Heron']])->and($tags->addingFree('iTunNORM', 'x')->free())
        ->toBe($tags->free());
});

it('keeps several values in a plan, and bounds them', function () {
    $tags = Tags::none()->with(TagField::Artist, ...array_map(fn (int $number): string => "Artist $number", range(1, 100)));
    expect(count($tags->all(TagField::Artist)))->toBe(64)
        ->and(Tags::fromArray(json_decode((string) json_encode($tags->toArray()), true))->all(TagField::Artist))
        ->toBe($tags->all(TagField::Artist));
    $path = Scratch::write('a.wav', Signal::wave([Signal::steps(100, 1)], SampleFormat::signed(16), tags: $tags));
    expect(Reader::read($path)->tags->all(TagField::Artist))->toBe($tags->all(TagField::Artist));
});

it('says how many tracks there are as each format does, and gains of Opus in its own fields', function () {
    $source = Scratch::write('s.wav', Signal::wave([Signal::sweep(48_000, 0.3, 0.00001)], SampleFormat::signed(16)));
    $flac = (new Maker)->make(Planning::plan(Reader::read($source), Spec::sound(Outputs::named('flac'), RateControl::none(),
        Scratch::folder())), 'f')->path;
    // As others write it: comments of their own.
    $script = 'import sys, mutagen; f = mutagen.File(sys.argv[1]); f["tracknumber"] = "3"; f["totaltracks"] = "9"; f["discnumber"] = "1"; f["disctotal"] = "2"; '
        .'f["replaygain_track_gain"] = "-3.21 dB"; f["replaygain_track_peak"] = "0.9"; f.save()';
    exec('/usr/bin/python3 -c '.escapeshellarg($script).' '.escapeshellarg($flac), $said, $status);
    expect($status)->toBe(0);
    $reading = Reader::read($flac);
    expect($reading->tags->get(TagField::Track))->toBe('3/9')->and($reading->tags->get(TagField::Disc))->toBe('1/2');
    $told = function (string $format) use ($flac): array {
        $path = (new Maker)->make(Planning::plan(Reader::read($flac), Spec::sound(Outputs::named($format), RateControl::exactly(128),
            Scratch::folder())), $format)->path;
        $script = 'import sys, json, mutagen; f = mutagen.File(sys.argv[1]); '
            .'print(json.dumps({"bitrate": getattr(f.info, "bitrate", 0) or 0, "tags": {k: str(v) for k, v in f.tags.items()}}))';

        return json_decode((string) shell_exec('/usr/bin/python3 -c '.escapeshellarg($script).' '.escapeshellarg($path)), true);
    };
    $mp3 = $told('mp3')['tags'];
    expect([$mp3['TRCK'], $mp3['TPOS']])->toBe(['3/9', '1/2']);
    $m4a = $told('aac');
    expect([$m4a['tags']['trkn'], $m4a['tags']['disk']])->toBe(['[(3, 9)]', '[(1, 2)]'])->and($m4a['bitrate'])->toBeBetween(90_000,
        150_000);
    $opus = array_change_key_case($told('opus')['tags']);
    // (−3.21 − 5) × 256
    expect($opus['r128_track_gain'] ?? '')->toContain('-2102')->and(implode(' ', array_keys($opus)))->not->toContain('replaygain')
        ->and($opus['tracktotal'] ?? '')->toContain('9')->and($opus['tracknumber'] ?? '')->toContain('3');
});
