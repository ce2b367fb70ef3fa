<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Results\Models\ReceiptFacts;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Testing\MovieWriter;
use Octavox\Core\Testing\WriterTrack;

/** A movie of three seconds: pictures, a Welsh and an English track of two channels, and a mono one in English. */
function threeTracks(): string
{
    $pictures = array_map(fn (int $number): string => pack('N', 300).str_repeat(chr($number), 300), range(1, 75));
    $tracks = [WriterTrack::h264($pictures, [0], (string) hex2bin('0142c01effe100096742c01eda0506640101000468ce3c80'), 320, 192, 25, 1)];
    foreach ([['cym', 2, 7], ['eng', 2, 11], ['eng', 1, 13]] as [$language, $channels, $step]) {
        $audio = AudioFormat::pcm(SampleFormat::signed(16, true), 48_000, Layout::undeclared($channels));
        $packets = [];
        for ($second = 0; $second < 3; $second++) {
            $data = '';
            for ($frame = 0; $frame < 48_000; $frame++) {
                for ($channel = 0; $channel < $channels; $channel++) {
                    $data .= pack('n', ($frame * $step + 900 * $channel) % 20_000);
                }
            }
            $packets[] = new Packet($data, 48_000 * $second, 48_000);
        }
        $tracks[] = WriterTrack::sound($audio, $packets, 0, 144_000, $language);
    }
    $sink = new MemorySink;
    (new MovieWriter('qt  ', $tracks, Tags::none(), 48_000))->write($sink);

    return $sink->bytes();
}

/** @return list<list<array{string, int, ?string}>> of each result, its sound tracks: codec, channels, language */
function soundsMade(): array
{
    return Result::query()->orderBy('id')->get()->map(function (Result $result): array {
        expect($result->state)->toBe(ResultState::Done, (string) $result->error_says);

        return array_map(fn ($track): array => [CodecModules::describe($track->sound), $track->sound->channels(), $track->language],
            Reader::read($result->plannedAs()->path())->sound());
    })->all();
}

it('makes of a video the tracks that were chosen, as files or beside the picture', function (array $order, array $made, string $note) {
    $source = $this->bring('Lift.mov', threeTracks());
    $query = ['sources' => (string) $source->id] + $order;
    $this->sheet(route('order.current', $query))->assertOk()->assertSee($note);
    $this->order($query)->assertRedirect();
    expect(soundsMade())->toBe($made);
    foreach (Result::query()->get() as $result) {
        $reading = Reader::read($result->plannedAs()->path());
        expect($reading->picture() !== null)->toBe(in_array($order['format'], ['mp4', 'mov', 'mkv'], true));
        foreach ($reading->sound() as $track) {
            expect($track->timeline->samples())->toBe(144_000);
        }
        $lines = array_column(ReceiptFacts::of($result)?->lines() ?? [], 1, 0);
        expect($lines)->not->toBe([])->and(implode(' ', $lines))->toContain('144,000');
    }
})->with([
    'the first, as a file' => [['format' => 'wav'], [[['16-bit PCM', 2, null]]], 'the first sound track of each source'],
    'each, as a file' => [['format' => 'flac', 'track' => 'all'],
        [[['16-bit FLAC', 2, null]], [['16-bit FLAC', 2, null]], [['16-bit FLAC', 1, null]]], 'one file for each sound track'],
    'one by its number' => [['format' => 'flac', 'track' => '4'], [[['16-bit FLAC', 1, null]]], 'by its number in the source'],
    'those in a language' => [['format' => 'flac', 'track' => 'eng'], [[['16-bit FLAC', 2, null]], [['16-bit FLAC', 1, null]]],
        'every sound track in this language'],
    'all as one' => [['format' => 'wav', 'track' => 'joined'], [[['16-bit PCM', 5, null]]], 'their channels follow each other'],
    'all beside the picture' => [['format' => 'mov'], [[['16-bit PCM', 2, 'cym'], ['16-bit PCM', 2, 'eng'], ['16-bit PCM', 1, 'eng']]],
        'every sound track of each source'],
    'one beside the picture' => [['format' => 'mkv', 'track' => '3'], [[['16-bit PCM', 2, 'eng']]], 'by its number in the source'],
    'a language beside the picture' => [['format' => 'mkv', 'track' => 'cym'], [[['16-bit PCM', 2, 'cym']]],
        'every sound track in this language'],
    'one channel a file' => [['format' => 'flac', 'layout' => 'split'], [[['16-bit FLAC', 1, null]], [['16-bit FLAC', 1, null]]],
        'a mono file of each channel'],
    'one channel a track' => [['format' => 'mov', 'track' => '2', 'layout' => 'split'],
        [[['16-bit PCM', 1, 'cym'], ['16-bit PCM', 1, 'cym']]], 'a mono track of each channel'],
    'all of them mono' => [['format' => 'mov', 'layout' => 'mono'],
        [[['16-bit PCM', 1, 'cym'], ['16-bit PCM', 1, 'eng'], ['16-bit PCM', 1, 'eng']]], 'all channels together in one'],
]);

it('keeps of a cut video the sound of the piece, to the sample', function (string $format) {
    $source = $this->bring('Lift.mov', threeTracks());
    $this->order(['sources' => (string) $source->id, 'format' => $format, 'track' => '4', 'pieces' => "$source->id:0.5-1.25"])
        ->assertRedirect();
    $result = Result::query()->sole();
    expect($result->state)->toBe(ResultState::Done, (string) $result->error_says);
    $made = $result->plannedAs()->path();
    $bytes = (string) file_get_contents($made);
    $expected = implode('', array_map(fn (int $frame): string => pack('v', ($frame % 48_000) * 13 % 20_000), range(24_000, 59_999)));
    expect(Reader::read($made)->sound()[0]->timeline->samples())->toBe(36_000)->and(str_contains($bytes, $expected))->toBeTrue();
})->with(['wav']);

it('tells beside a video what is copied, what is remade and why', function () {
    $source = $this->bring('Lift.mov', threeTracks());
    $this->sheet("/order?sources=$source->id&format=mkv")->assertOk()->assertSee('copied untouched')->assertSee('Lift.mkv');
    // WebM carries neither such pictures nor such sound.
    $this->sheet("/order?sources=$source->id&format=webm")->assertOk()->assertSee('cannot be copied as it is into Video, WebM')
        ->assertSee('Make 0 files');
    $this->order(['sources' => (string) $source->id, 'format' => 'webm']);
    expect(Order::query()->get()->every(fn (Order $order): bool => $order->isDraft()))->toBeTrue()->and(Result::query()->count())->toBe(0);
});

it('lists every track of a video with its facts, and hears each', function () {
    $source = $this->bring('Lift.mov', threeTracks());
    $page = $this->get("/sources/$source->id")->assertOk();
    foreach (['Welsh', 'English', '320 × 192', 'H.264', '16-bit PCM', '48 kHz', 'stereo', 'mono'] as $text) {
        $page->assertSee($text);
    }
    $fresh = Source::query()->with('tracks')->findOrFail($source->id);
    foreach ($fresh->tracks->where('kind', 'sound') as $track) {
        expect($track->measured()?->samples)->toBe(144_000);
        $this->get("/sources/$source->id/tracks/$track->number/waveform")->assertOk();
    }
    expect($fresh->tracks->where('kind', 'sound')->count())->toBe(3);
});
