<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** A text by chance: letters of several scripts, signs that other tags part values by, line breaks, long ones. */
function chanceText(): string
{
    $parts = ['Lift', 'opens', 'é', '運河', '🚤', 'Straße', 'לוח', '/', ';', ',', ' & ', '"', "'", '<b>', '\\', '%s', '=', "\u{200B}",
        ' - ', '0', '(12)'];
    $text = '';
    for ($count = mt_rand(1, 9); $count > 0; $count--) {
        $text .= $parts[mt_rand(0, count($parts) - 1)];
    }

    return mt_rand(1, 12) === 1 ? str_repeat($text, 40) : $text;
}

function chanceTags(): Tags
{
    $tags = Tags::none();
    $fields = [TagField::Title, TagField::Artist, TagField::Album, TagField::AlbumArtist, TagField::Comment, TagField::Composer,
        TagField::Copyright,
        TagField::Lyrics, TagField::Publisher, TagField::Conductor];
    foreach ($fields as $field) {
        if (mt_rand(0, 1) === 1) {
            $tags = $tags->with($field, '_'.chanceText().'_');
        }
    }

    return $tags->with(TagField::Title, 'The lift '.chanceText().'.')->with(TagField::Track, mt_rand(1, 99).'/'.mt_rand(99, 120));
}

function taggedAs(string $path, string $format): string
{
    $spec = Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder());

    return (new Maker)->make(Planning::plan(Reader::read($path), $spec), 'tags')->path;
}

it('carries whatever stands in tags through every kind of file and back', function (string $format, int $seed) {
    mt_srand($seed);
    for ($time = 0; $time < 4; $time++) {
        $tags = chanceTags();
        $source = Scratch::write('tagged.mp3', Signal::mp3([Signal::sweep(6000)], RateControl::exactly(64), tags: $tags));
        $read = Reader::read($source)->tags->toArray();
        expect($read)->toBe($tags->toArray());
        $there = taggedAs($source, $format);
        expect(Reader::read($there)->tags->toArray())->toBe($read);
        expect(Reader::read(taggedAs($there, 'mp3'))->tags->toArray())->toBe($read);
    }
})->with(['mp3', 'flac', 'aac', 'vorbis', 'opus', 'wav', 'aiff', 'mka', 'alac', 'wavpack', 'adts'])->with([1, 2]);

it('carries any cover, bit for bit', function (string $format, int $bytes) {
    mt_srand($bytes);
    // What looks like the start of another picture stands within it, as it can by chance.
    $picture = "\x89PNG\r\n\x1A\n\xFF\xD8\xFF".str_repeat(pack('N', mt_rand()), intdiv($bytes, 4))."\xFF\xD8\xFF\xFF\x00";
    $tags = Tags::none()->with(TagField::Title, 'x')->withCover(new Cover('image/png', $picture));
    $source = Scratch::write('covered.mp3', Signal::mp3([Signal::sweep(6000)], RateControl::exactly(64), tags: $tags));
    $cover = Reader::read(taggedAs($source, $format))->cover;
    $opened = Opener::open(taggedAs($source, $format));
    expect($cover)->toBe('image/png')->and($opened->media->tags()->cover?->bytes === $picture)->toBeTrue();
})->with(['mp3', 'flac', 'aac', 'vorbis', 'opus', 'mka'])->with([10, 127, 128, 16_383, 16_384, 70_000, 300_001]);

it('takes nothing within a picture for a file of another kind', function (string $filling) {
    $picture = "\xFF\xD8\xFF\xE0".str_repeat($filling, intdiv(20_000, strlen($filling)));
    $path = Scratch::write('covered.mp3', Signal::mp3([Signal::sweep(6000)], RateControl::exactly(64),
        tags: Tags::none()->withCover(new Cover('image/jpeg', $picture))));
    $opened = Opener::open($path);
    expect($opened->media->container())->toBe('mp3')->and($opened->media->tags()->cover?->bytes === $picture)->toBeTrue();
})->with([
    'packets of a transport stream' => ['G'.str_repeat("\0", 187)], 'with time stamps' => [str_repeat("\0", 4).'G'.str_repeat("\0", 187)],
    'frames of MPEG audio' => ["\xFF\xFB\x90\x00".str_repeat("\0", 413)],
    'frames of AAC' => ["\xFF\xF1\x50\x80\x0C\x9F\xFC".str_repeat("\0", 93)],
    'frames of AC-3' => ["\x0B\x77\0\0\x14\x40\x43".str_repeat("\0", 761)], 'boxes' => ["\0\0\0\x10ftypisom\0\0\0\0"],
    'another tag' => ["ID3\x04\0\0\0\0\x01\x00".str_repeat("\0", 128)], 'waves' => ["RIFF\x24\0\0\0WAVEfmt "],
    'the end of a tag' => ['TAG'.str_repeat('x', 125)],
]);

it('carries any chapters to the places where they were', function (string $format, int $seed) {
    mt_srand($seed);
    $chapters = [];
    $time = 0.0;
    for ($number = mt_rand(1, 12); $number > 0; $number--) {
        $chapters[] = new Chapter(round($time, 3), 'Gate '.chanceText());
        $time += mt_rand(20, 300) / 1000;
    }
    $wave = Signal::wave([Signal::sweep(240_000)], SampleFormat::signed(16), 48_000, Tags::none()->withChapters($chapters, 5.0));
    $source = Scratch::write('marked.wav', $wave);
    $read = Reader::read(taggedAs($source, $format))->chapters;
    expect(array_map(fn (Chapter $one): string => $one->title, $read))
        ->toBe(array_map(fn (Chapter $one): string => $one->title, $chapters));
    foreach ($read as $index => $one) {
        expect($one->starts)->toEqualWithDelta($chapters[$index]->starts, 0.0011);
    }
})->with(['wav', 'mp3', 'flac', 'aac', 'vorbis', 'opus'])->with([1, 2, 3]);

/** Every field there is, one with several values, one that only goes by a name, and a cover. */
function allTags(): Tags
{
    $tags = Tags::none();
    $own = ['track' => '3/9', 'disc' => '1/2', 'year' => '1994-06-11', 'original_year' => '1993', 'tempo' => '120', 'compilation' => '1',
        'language' => 'eng', 'genre' => 'Brass', 'isrc' => 'GBABC9400001'];
    foreach (TagField::cases() as $field) {
        $tags = $tags->with($field, $own[$field->value] ?? 'the '.$field->value);
    }

    return $tags->with(TagField::Artist, 'First', 'Second')->withFree('BOATS', 'two', 'three')
        ->withCover(new Cover('image/jpeg', "\xFF\xD8\xFF\xE0".str_repeat('o', 300)));
}

it('has room for just those tags that each kind of sound file says it has', function () {
    $tags = allTags();
    $source = taggedAs(Scratch::write('all.wav', Signal::wave([Signal::sweep(9600)], SampleFormat::signed(16), 8000, $tags)), 'flac');
    $tried = 0;
    foreach (Outputs::all() as $format) {
        $capabilities = $format->capabilities();
        if (! $capabilities->makes || $capabilities->headerless) {
            expect($capabilities->tags->cover)->toBe($format->name() === 'mka');

            continue;
        }
        $tried++;
        $room = $capabilities->tags;
        $plan = Planning::plan(Reader::read($source), Spec::sound($format, RateControl::none(), Scratch::folder()));
        $read = Opener::open((new Maker)->make($plan, 'room')->path)->media->tags();
        $lost = array_values(array_diff(array_keys($tags->toArray()), array_keys($read->toArray())));
        $lost = [...$lost, ...($read->cover === null ? ['cover'] : [])];
        expect($lost)->toBe($room->lost($tags, true), $format->name())
            ->and($read->all(TagField::Artist))->toBe(! $room->holds(TagField::Artist) ? []
                : ($room->several ? ['First', 'Second'] : ['First; Second']), $format->name())
            ->and(str_contains(implode(' ', Planning::steps($plan)), 'has no place for'))->toBe($lost !== [], $format->name());
    }
    expect($tried)->toBeGreaterThan(12);
});

it('has room for all tags in every kind of video', function (string $container) {
    $path = Scratch::write('in.mp4', Signal::movie([Signal::pictureTrack(20), Signal::aacTrack([Signal::sweep(9600)])]));
    $asked = new OutputSpec($container, tags: allTags()->toArray(), place: Scratch::folder());
    $read = Opener::open((new Maker)->make(Planning::plan(Reader::read($path), $asked), 'room')->path)->media->tags();
    expect($read->toArray())->toBe(allTags()->toArray());
})->with(['mp4', 'mov', 'mkv']);
