<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\SampleFormat;
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
    $parts = ['Lift', 'opens', 'é', '運河', '🚤', 'Straße', 'לוח', '/', ';', ',', ' & ', '"', "'", '<b>', '\\', '%s', '=', "\u{200B}", ' - ', '0', '(12)'];
    $text = '';
    for ($count = mt_rand(1, 9); $count > 0; $count--) {
        $text .= $parts[mt_rand(0, count($parts) - 1)];
    }

    return mt_rand(1, 12) === 1 ? str_repeat($text, 40) : $text;
}

function chanceTags(): Tags
{
    $tags = Tags::none();
    $fields = [TagField::Title, TagField::Artist, TagField::Album, TagField::AlbumArtist, TagField::Comment, TagField::Composer, TagField::Copyright,
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
        $source = Scratch::write('tagged.mp3', Signal::mp3([Signal::sweep(6000)], RateControl::constant(64), tags: $tags));
        $read = Reader::read($source)->tags->toArray();
        expect($read)->toBe($tags->toArray());
        $there = taggedAs($source, $format);
        expect(Reader::read($there)->tags->toArray())->toBe($read);
        expect(Reader::read(taggedAs($there, 'mp3'))->tags->toArray())->toBe($read);
    }
})->with(['mp3', 'flac', 'aac', 'vorbis', 'opus', 'wav', 'aiff', 'mka', 'alac', 'wavpack', 'adts'])->with([1, 2]);

it('carries any cover, bit for bit', function (string $format, int $bytes) {
    mt_srand($bytes);
    $picture = "\x89PNG\r\n\x1A\n".random_bytes($bytes);
    $tags = Tags::none()->with(TagField::Title, 'x')->withCover(new Cover('image/png', $picture));
    $source = Scratch::write('covered.mp3', Signal::mp3([Signal::sweep(6000)], RateControl::constant(64), tags: $tags));
    $cover = Reader::read(taggedAs($source, $format))->cover;
    $opened = Octavox\Core\Reading\Opener::open(taggedAs($source, $format));
    expect($cover)->toBe('image/png')->and($opened->media->tags()->cover?->bytes === $picture)->toBeTrue();
})->with(['mp3', 'flac', 'aac', 'vorbis', 'opus', 'mka'])->with([10, 127, 128, 16_383, 16_384, 70_000, 300_001]);

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
    expect(array_map(fn (Chapter $one): string => $one->title, $read))->toBe(array_map(fn (Chapter $one): string => $one->title, $chapters));
    foreach ($read as $index => $one) {
        expect($one->starts)->toEqualWithDelta($chapters[$index]->starts, 0.0011);
    }
})->with(['wav', 'mp3', 'flac', 'aac', 'vorbis', 'opus'])->with([1, 2, 3]);
