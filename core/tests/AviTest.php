<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Findings\NeverFinished;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tests\Support\Pictured;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** A chunk as RIFF has it: name, length, body, filled up to an even place. */
function chunk(string $name, string $body): string
{
    return $name.pack('V', strlen($body)).$body.(strlen($body) % 2 === 1 ? "\0" : '');
}

/**
 * AVI as many programs write it: pictures and mono PCM of 48 kHz in turn, with an index of the asked kind.
 *
 * @param  list<string>  $pictures
 * @param  string  $index  `old`, `old from the start of the file`, `chunks`, `two levels`, or `none`
 * @param  int  $parts  RIFF lists over which all of it is spread (OpenDML)
 */
function aviFile(array $pictures, string $index, int $parts = 1, bool $lists = false, string $more = '', bool $damaged = false): string
{
    $sound = substr(Signal::wave([Signal::steps(1920 * count($pictures), 3)], SampleFormat::signed(16)), -3840 * count($pictures));
    $head = fn (array $own): string => chunk('LIST', 'hdrl'.chunk('avih', str_repeat("\0", 56))
        .chunk('LIST', 'strl'.chunk('strh',
            'vidsxvid'.str_repeat("\0", 12).pack('V7', 1, 25, 0, count($pictures), 0, 0, 0).str_repeat("\0", 8))
            .chunk('strf', Pictured::header('XVID')).($own[0] ?? ''))
        .chunk('LIST', 'strl'.chunk('strh',
            'auds'.str_repeat("\0", 16).pack('V7', 2, 96_000, 0, strlen($sound), 0, 0, 2).str_repeat("\0", 8))
            .chunk('strf', pack('vvVVvv', 1, 1, 48_000, 96_000, 2, 16)).($own[1] ?? '')).$more);
    // Two indexes of each stream have room for as many entries as there are pictures, whatever they come to hold.
    $room = match ($index) {
        'chunks' => chunk('indx', str_repeat("\0", 24 + 8 * count($pictures))),
        'two levels' => chunk('indx', str_repeat("\0", 24 + 16 * $parts)),
        default => '',
    };
    $file = 'RIFF....AVI '.$head([$room, $room]);
    $old = '';
    $found = [[], []];
    $starts = [];
    $each = intdiv(count($pictures), $parts);
    $movie = 0;
    for ($part = 0; $part < $parts; $part++) {
        $riff = strrpos($file, 'RIFF....');
        if ($part > 0) {
            $riff = strlen($file);
            $file .= 'RIFF....AVIX';
        }
        $list = strlen($file);
        $file .= 'LIST....movi';
        $movie = $part === 0 ? $list + 8 : $movie;
        $last = $part === $parts - 1 ? count($pictures) : ($part + 1) * $each;
        for ($number = $part * $each; $number < $last; $number++) {
            $both = [chunk('00dc', $pictures[$number]), chunk('01wb', substr($sound, 3840 * $number, 3840))];
            $file .= $lists ? 'LIST'.pack('V', 4 + strlen($both[0].$both[1])).'rec ' : '';
            foreach ($both as $stream => $one) {
                $key = $stream === 1 || $number % 12 === 0;
                $from = $index === 'old from the start of the file' ? 0 : $movie;
                $old .= substr($one, 0, 4).pack('V3', $key ? 0x10 : 0, strlen($file) - $from, unpack('V', $one, 4)[1]);
                $found[$stream][$part][] = [strlen($file) + 8, unpack('V', $one, 4)[1] | ($key ? 0 : 0x80000000)];
                $file .= $one;
            }
        }
        $file = substr_replace($file, pack('V', strlen($file) - $list - 8), $list + 4, 4);
        foreach ($index === 'two levels' ? [0, 1] : [] as $stream) {
            $starts[$stream][$part] = [strlen($file), 32 + 8 * count($found[$stream][$part])];
            $file .= chunk(['ix00', 'ix01'][$stream],
                pack('vCCV', 2, 0, 1, count($found[$stream][$part])).['00dc', '01wb'][$stream].pack('PV', 0, 0)
                .implode('', array_map(fn (array $one): string => pack('V2', ...$one), $found[$stream][$part])));
        }
        $file .= $part === 0 && ($index === 'old' || $index === 'old from the start of the file' || $damaged) ? chunk('idx1', $old) : '';
        $file = substr_replace($file, pack('V', strlen($file) - $riff - 8), $riff + 4, 4);
    }
    foreach ([0, 1] as $stream) {
        $at = (int) strpos($file, 'indx', $stream === 0 ? 0 : (int) strpos($file, 'auds'));
        $body = match ($index) {
            'chunks' => pack('vCCV', 2, 0, 1, count($pictures)).['00dc', '01wb'][$stream].pack('PV', 0, 0)
                .implode('', array_map(fn (array $one): string => pack('V2', ...$one), array_merge(...$found[$stream]))),
            'two levels' => pack('vCCV', 4, 0, 0, $parts).['00dc', '01wb'][$stream].str_repeat("\0", 12)
                .implode('', array_map(fn (array $one): string => pack('PVV', $damaged ? 1 << 40 : $one[0], $one[1], $each),
                    $starts[$stream])),
            default => '',
        };
        $file = $body === '' ? $file : substr_replace($file, $body, $at + 8, strlen($body));
    }

    return $file;
}

/** @return list<string> */
function somePictures(int $count): array
{
    return array_map(fn (int $number): string => str_repeat(chr(33 + $number), 100 + 37 * $number), range(0, $count - 1));
}

/** @return array{list<string>, list<bool>} */
function aviPictures(string $path): array
{
    $opened = Opener::open($path);
    assert($opened->media instanceof VideoSource);
    $samples = [...$opened->media->pictures($opened->picture())];

    return [array_map(fn ($sample): string => $sample->data->bytes(), $samples), array_map(fn ($sample): bool => $sample->key, $samples)];
}

it('finds all pictures and all sound by every kind of index, or without one',
    function (string $index, int $parts, bool $lists, bool $damaged) {
        $pictures = somePictures(26);
        $path = Scratch::write('clip.avi', aviFile($pictures, $index, $parts, $lists, damaged: $damaged));
        [$found, $keys] = aviPictures($path);
        expect(array_map(md5(...), $found))->toBe(array_map(md5(...), $pictures))->and(Signal::decodeFile($path))
            ->toBe([Signal::steps(26 * 1920, 3)])
            ->and(array_keys(array_filter($keys)))->toBe($index === 'none' || $damaged ? [0] : [0, 12, 24])
            ->and(Reader::read($path)->sound()[0]->timeline->samples())->toBe(26 * 1920);
    })->with([
        'the old index' => ['old', 1, false, false], 'places from the start' => ['old from the start of the file', 1, false, false],
        'in lists of their own' => ['old', 1, true, false], 'an index a stream' => ['chunks', 1, false, false],
        'an index of indexes' => ['two levels', 1, false, false], 'several parts' => ['two levels', 3, false, false],
        'no index' => ['none', 1, false, false], 'no index, in lists' => ['none', 1, true, false],
        'no index, several parts' => ['none', 2, false, false],
        'an index of indexes that leads nowhere, and an old one of the first part' => ['two levels', 2, false, true],
    ]);

it('takes what is there of a file that was cut', function (int $missing, bool $index) {
    $bytes = aviFile(somePictures(26), 'old');
    $bytes = substr($bytes, 0, ($index ? strlen($bytes) : (int) strpos($bytes, 'idx1')) - $missing);
    $path = Scratch::write('cut.avi', $bytes);
    $reading = Reader::read($path);
    $samples = Signal::decodeFile($path)[0];
    expect(array_slice(Signal::steps(26 * 1920, 3), 0, count($samples)))->toBe($samples)->and(count($samples))
        ->toBeGreaterThan(25 * 1920 - 1)
        ->and(array_map(fn ($one) => $one->kind::class, $reading->findings))->toContain(NeverFinished::class);
})->with([[10, true], [1, true], [10, false], [3000, false]]);

it('reads what an AVI says of itself beside its streams', function () {
    $text = chunk('LIST', 'strl'.chunk('strh', 'txts'.str_repeat("\0", 44)).chunk('strf', str_repeat("\0", 40)));
    $about = chunk('LIST', 'INFO'.chunk('INAM', "Lift\0").chunk('IART', "Wrenfield\0")).chunk('JUNK', str_repeat('j', 77));
    $path = Scratch::write('about.avi', aviFile(somePictures(5), 'old', more: $text.$about));
    $reading = Reader::read($path);
    expect($reading->tags->get(TagField::Title))->toBe('Lift')->and($reading->tags->get(TagField::Artist))->toBe('Wrenfield')
        ->and(array_map(fn ($track) => $track->kind, $reading->tracks))->toBe([TrackKind::Picture, TrackKind::Sound, TrackKind::Text]);
});

it('counts compressed sound by its frames, whatever the chunks hold', function (bool $whole, int $empty) {
    [, $packets] = Signal::encode(new AudioFormat(Codec::Mp3, 48_000, Layout::stereo()), RateControl::variable(4),
        [Signal::sweep(60_000), Signal::sweep(60_000)]);
    $stream = implode('', array_map(fn (Packet $packet): string => $packet->data, $packets));
    $pieces = $whole ? array_map(fn (Packet $packet): string => $packet->data, $packets) : str_split($stream, 777);
    $movie = 'movi'.str_repeat(chunk('00wb', ''), $empty).implode('',
        array_map(fn (string $piece): string => chunk('00wb', $piece), $pieces));
    $format = pack('vvVVvvvvVvvv', 0x55, 2, 48_000, 16_000, 1152, 0, 12, 1, 2, 1152, 1, 0);
    $head = chunk('LIST', 'hdrl'.chunk('avih', str_repeat("\0", 56)).chunk('LIST', 'strl'.chunk('strh',
        'auds'.str_repeat("\0", 16).pack('V7', 1152, 48_000, 0, count($packets), 0, 0, 0).str_repeat("\0", 8)).chunk('strf', $format)));
    $path = Scratch::write('sound.avi', chunk('RIFF', 'AVI '.$head.chunk('LIST', $movie)));
    $track = Reader::read($path)->sound()[0];
    expect($track->sound->codec)->toBe(Codec::Mp3)->and($track->timeline->coded)->toBe(1152 * count($packets))
        ->and(Signal::packetsOf($path))->toBe(hash('xxh128', $stream));
})->with(['a frame a chunk' => [true, 0], 'frames in pieces' => [false, 0], 'empty chunks first' => [true, 3]]);

it('refuses an AVI in which nothing can be found', function (string $bytes) {
    expect(fn () => Reader::read(Scratch::write('x.avi', $bytes)))->toThrow(NoTracks::class);
})->with([
    'only a name' => ['RIFF'.pack('V', 0).'AVI '.str_repeat("\0", 20)],
    'no streams' => [chunk('RIFF', 'AVI '.chunk('LIST', 'hdrl'.chunk('avih', str_repeat("\0", 56))))],
    'a stream of nothing known' => [chunk('RIFF', 'AVI '.chunk('LIST', 'hdrl'.chunk('LIST', 'strl'.chunk('strh', 'iavs'.str_repeat("\0",
        44)))))],
]);
