<?php

declare(strict_types=1);

use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Plan\ResultChapters;
use Octavox\Core\Plan\Shape;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Piece;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Tag\VorbisComment;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return list<Chapter> */
function wrenfieldChapters(): array
{
    return [new Chapter(0.0, 'The lower gate'), new Chapter(1.25, 'Y lifft — up'), new Chapter(2.5, 'Café, and 上')];
}

/** A recording of four seconds with marks. */
function markedWave(): string
{
    return Scratch::write('marked.wav', Signal::wave([Signal::sweep(4 * 48000)], SampleFormat::signed(16),
        tags: Tags::none()->with(TagField::Title, 'Lift')->withChapters(wrenfieldChapters(), 4.0)));
}

function chaptersMade(string $path, string $format, string $pieces = ''): string
{
    $plan = Planning::plan(Reader::read($path),
        Spec::sound(Outputs::named($format), RateControl::near(128), Scratch::folder(), shaping: Spec::shaping(pieces: $pieces)));

    return (string) (new Maker)->make($plan, bin2hex(random_bytes(4)))->path;
}

/** @return list<array{int, string}> milliseconds and titles */
function chaptersOf(string $path): array
{
    return array_map(fn (Chapter $chapter): array => [(int) round(1000 * $chapter->starts), $chapter->title],
        Reader::read($path)->chapters);
}

/** @return list<array{float, string}> */
function placed(array $chapters): array
{
    return array_map(fn (Chapter $chapter): array => [$chapter->starts, $chapter->title], $chapters);
}

it('carries chapters into every kind of sound file that has a place for them', function (string $format) {
    $path = chaptersMade(markedWave(), $format);
    $wanted = [[0, 'The lower gate'], [1250, 'Y lifft — up'], [2500, 'Café, and 上']];
    expect(chaptersOf($path))->toBe($wanted)
        ->and(Reader::read($path)->tags->get(TagField::Title))->toBe('Lift')
        // From each of them they go on into the next.
        ->and(chaptersOf(chaptersMade($path, 'flac')))->toBe($wanted);
})->with(['wav', 'aiff', 'flac', 'alac', 'mp3', 'mp2', 'aac', 'adts', 'opus', 'vorbis']);

it('says of every kind of sound file whether it has a place for chapters', function () {
    $marked = markedWave();
    $asPhone = (string) (new Maker)
        ->make(Planning::plan(Reader::read($marked),
            Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder(), 8000)), 'phone')->path;
    foreach (Outputs::all() as $format) {
        if ($format->capabilities()->makes && ! $format->capabilities()->headerless) {
            $path = in_array($format->name(), ['gsm', 'ima', 'msadpcm'], true) ? $asPhone : $marked;
            $plan = Planning::plan(Reader::read($path), Spec::sound($format, RateControl::none(), Scratch::folder()));
            $made = Reader::read((string) (new Maker)->make($plan, 'kind')->path);
            $holds = $format->capabilities()->holdsChapters;
            expect(array_column(placed($made->chapters), 1))
                ->toBe($holds ? ['The lower gate', 'Y lifft — up', 'Café, and 上'] : [], $format->name())
                ->and(preg_grep('/^without chapters: .+ has no place for them$/', Planning::steps($plan)))->toHaveCount($holds ? 0 : 1);
        }
    }
});

it('gives a piece the chapters that are heard in it, at its own times', function (string $format) {
    expect(chaptersOf(chaptersMade(markedWave(), $format, '0:01-0:03')))
        ->toBe([[0, 'The lower gate'], [250, 'Y lifft — up'], [1500, 'Café, and 上']]);
})->with(['wav', 'flac', 'mp3', 'aac', 'opus']);

it('moves chapters with what is cut, joined and begun later', function () {
    $chapters = [new Chapter(0.0, 'One'), new Chapter(10.0, 'Two'), new Chapter(20.0, 'Three')];
    $of = fn (int $moment, int $length, Piece ...$pieces): array => placed(ResultChapters::place($chapters, 100, $moment, $length,
        new Shape(pieces: array_values($pieces))));
    expect($of(0, 3000))->toBe([[0.0, 'One'], [10.0, 'Two'], [20.0, 'Three']])
        ->and($of(500, 2000))->toBe([[0.0, 'One'], [5.0, 'Two'], [15.0, 'Three']])
        ->and($of(-100, 900))->toBe([[1.0, 'One']])
        ->and($of(1000, 500))->toBe([[0.0, 'Two']])
        ->and($of(0, 3000, new Piece(500, 800), new Piece(1900, 2100)))->toBe([[0.0, 'One'], [3.0, 'Two'], [4.0, 'Three']])
        ->and($of(0, 3000, new Piece(2500, 2600), new Piece(2700, 2800), new Piece(0, 100)))->toBe([[0.0, 'Three'], [2.0, 'One']])
        ->and($of(0, 3000, new Piece(1000, 2000)))->toBe([[0.0, 'Two']])
        ->and(ResultChapters::place([], 100, 0, 3000, Shape::none()))->toBe([])
        ->and(placed(ResultChapters::place(array_reverse($chapters), 100, 0, 3000, Shape::none())))
        ->toBe([[0.0, 'One'], [10.0, 'Two'], [20.0, 'Three']]);
});

it('writes chapter frames and a table of contents as the addendum to ID3v2 has them', function () {
    $tag = Id3v2::write(Tags::none()->withChapters([new Chapter(0.0, 'One'), new Chapter(61.5, 'Two')], 90.0));
    expect($tag)->toContain("CTOC\0\0\0\x21\0\0contents\0\x03\x02chapter001\0chapter002\0")
        ->toContain("CHAP\0\0\0\x29\0\0chapter001\0".pack('N4', 0, 61_500, 0xFFFFFFFF, 0xFFFFFFFF)."TIT2\0\0\0\x04\0\0\x03One")
        ->toContain("chapter002\0".pack('N4', 61_500, 90_000, 0xFFFFFFFF, 0xFFFFFFFF));
});

it('reads chapters that others wrote: out of order, in older codings, damaged', function () {
    $frame = fn (string $name, string $data): string => $name.pack('N', strlen($data))."\0\0".$data;
    $chapter = fn (string $name, int $from, string $title): string => $frame('CHAP',
        $name."\0".pack('N4', $from, $from + 1, 0, 0).$frame('TIT2', $title));
    $body = $chapter('b', 5000, "\x01\xFF\xFE".mb_convert_encoding('Später', 'UTF-16LE', 'UTF-8')).$frame('CHAP', 'short').$frame('CHAP',
        'no end'.pack('N2', 1, 2)).$frame('CHAP', "n\0".pack('N4', 7000, 8000, 0, 0)).$chapter('a', 250, "\0Fr\xFCh");
    $tags = Id3v2::read("ID3\x03\0\0".pack('N', strlen($body)).$body."\0\0\0\0\0\0\0\0\0\0\0\0");
    expect(placed($tags->chapters))->toBe([[0.25, 'Früh'], [5.0, 'Später'], [7.0, '']]);

    $comments = ['CHAPTER002=01:00:00.5', 'chapter001=00:00:01.000', 'CHAPTER001NAME=First', 'CHAPTER003=whenever', 'CHAPTER003NAME=Lost',
        'CHAPTER002NAME=Second'];
    $bytes = pack('V', 0).pack('V', count($comments)).implode('',
        array_map(fn (string $comment): string => pack('V', strlen($comment)).$comment, $comments));
    expect(placed(VorbisComment::read($bytes)->chapters))->toBe([[1.0, 'First'], [3600.5, 'Second']]);
});

it('writes chapters of an hour and more into comments, and reads them back', function () {
    $chapters = [new Chapter(0.0, 'One'), new Chapter(3723.0405, "Two\nlines"), new Chapter(90_061.0, '')];
    $bytes = VorbisComment::write(Tags::none()->withChapters($chapters), 'Octavox');
    expect($bytes)->toContain('CHAPTER002=01:02:03.041')->toContain('CHAPTER003=25:01:01.000')
        ->and(array_column(placed(VorbisComment::read($bytes)->chapters), 0))->toBe([0.0, 3723.041, 90_061.0]);
});

it('foresees the size of a WAV with marks to the byte', function () {
    $path = markedWave();
    $plan = Planning::plan(Reader::read($path), Spec::sound(Outputs::named('wav'), RateControl::none(), Scratch::folder(), bits: 24));
    expect((new Maker)->make($plan, 'foreseen')->path)->toBeFile()->and(FileBytes::open($plan->path())->size())
        ->toBe($plan->target->predictedBytes);
});
