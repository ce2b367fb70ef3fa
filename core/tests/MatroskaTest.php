<?php

declare(strict_types=1);

use Octavox\Core\Bytes\BitWriter;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Matroska\Elements;
use Octavox\Core\Container\Matroska\Id;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;
use Octavox\Core\Tests\Support\Pictured;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return array{AudioFormat, list<Packet>, list<float>} */
function mp3Sound(): array
{
    $sweep = Signal::sweep(60_000, 0.4, 0.000002);
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Mp3, 48000, Layout::mono(), null, '', 1152),
        RateControl::exactly(96), [$sweep]);

    return [$encoder->audio(), $packets, $sweep];
}

/**
 * A Matroska file made by hand.
 *
 * @param  list<string>  $clusters  bodies
 */
function matroskaFile(array $clusters, string $track = '', bool $open = false, string $more = ''): string
{
    $entry = Elements::master(Id::TRACK_ENTRY, Elements::number(Id::TRACK_NUMBER, 1), Elements::number(Id::TRACK_TYPE, 2),
        Elements::bytes(Id::CODEC_ID, 'A_MPEG/L3'), Elements::bytes(Id::LANGUAGE_BCP47, 'cy-GB'),
        Elements::master(Id::AUDIO, Elements::real(Id::SAMPLING_FREQUENCY, 48000.0), Elements::number(Id::CHANNELS, 1)), $track);
    $body = Elements::master(Id::INFO, Elements::number(Id::TIMESTAMP_SCALE, 1_000_000)).$more.Elements::master(Id::TRACKS, $entry);
    foreach ($clusters as $cluster) {
        $body .= $open ? Elements::id(Id::CLUSTER)."\x01\xFF\xFF\xFF\xFF\xFF\xFF\xFF".$cluster : Elements::bytes(Id::CLUSTER, $cluster);
    }

    return Elements::master(Id::EBML, Elements::bytes(Id::DOC_TYPE, 'matroska')).($open
        ? Elements::id(Id::SEGMENT)."\x01\xFF\xFF\xFF\xFF\xFF\xFF\xFF".$body : Elements::bytes(Id::SEGMENT, $body));
}

/**
 * Blocks of five frames each, laced in one way.
 *
 * @param  list<Packet>  $packets
 * @param  int  $lacing  1 Xiph, 2 fixed, 3 EBML
 * @return list<string>  bodies of clusters of ten blocks
 */
function laced(array $packets, int $lacing): array
{
    $clusters = [];
    foreach (array_chunk($packets, 50) as $fifty) {
        $time = intdiv($fifty[0]->start * 1000, 48000);
        $body = Elements::number(Id::TIMESTAMP, $time);
        foreach (array_chunk($fifty, 5) as $group) {
            $sizes = array_map(fn (Packet $packet): int => strlen($packet->data), $group);
            $last = array_pop($sizes);
            $head = chr(count($group) - 1);
            if ($lacing === 1) {
                foreach ($sizes as $size) {
                    $head .= str_repeat("\xFF", intdiv($size, 255)).chr($size % 255);
                }
            } elseif ($lacing === 3) {
                $before = null;
                foreach ($sizes as $size) {
                    // Two bytes each: 14 bits, of which differences use the middle as nothing.
                    $head .= pack('n', 0x4000 | ($before === null ? $size : $size - $before + 8191));
                    $before = $size;
                }
            }
            $flags = chr(0x80 | $lacing << 1);
            $body .= Elements::bytes(Id::SIMPLE_BLOCK,
                "\x81".pack('n', intdiv($group[0]->start * 1000, 48000) - $time).(count($group) === 1 ? "\x80".$group[0]->data
                : $flags.$head.implode('', array_map(fn (Packet $packet): string => $packet->data, $group))));
        }
        $clusters[] = $body;
    }

    return $clusters;
}

it('reads every way of lacing, in clusters of known and of unknown length', function (int $lacing, bool $open) {
    [, $packets, $sweep] = mp3Sound();
    $path = Scratch::write('laced.mkv', matroskaFile(laced($packets, $lacing), '', $open));
    $track = Reader::read($path)->sound()[0];
    $decoded = Signal::decodeFile($path);
    expect($track->timeline->samples())->toBe(1152 * count($packets))
        ->and($track->language)->toBe('cym')
        ->and(Signal::packetsOf($path))
        ->toBe(hash('xxh128', implode('', array_map(fn (Packet $packet): string => $packet->data, $packets))))
        ->and(Signal::difference($sweep, array_slice($decoded[0], 1105), 3000, 50_000))->toBeLessThan(-20.0);
})->with([1, 2, 3])->with([false, true])->group('slow');

it('puts back what was stripped from frames, and inflates what was deflated', function (string $kind) {
    [, $packets] = mp3Sound();
    $stripped = substr($packets[0]->data, 0, 2);
    $settings = $kind === 'stripped'
        ? Elements::number(Id::CONTENT_ALGORITHM, 3).Elements::bytes(Id::CONTENT_SETTINGS, $stripped)
        : Elements::number(Id::CONTENT_ALGORITHM, 0);
    $encoding = Elements::master(Id::CONTENT_ENCODINGS,
        Elements::master(Id::CONTENT_ENCODING, Elements::master(Id::CONTENT_COMPRESSION, $settings)));
    $changed = array_map(fn (Packet $packet): Packet => new Packet($kind === 'stripped' ? substr($packet->data, 2)
        : (string) zlib_encode($packet->data, ZLIB_ENCODING_DEFLATE), $packet->start, $packet->length), $packets);
    $body = Elements::number(Id::TIMESTAMP, 0);
    foreach ($changed as $packet) {
        $body .= Elements::master(Id::BLOCK_GROUP,
            Elements::bytes(Id::BLOCK, "\x81".pack('n', intdiv($packet->start * 1000, 48000))."\0".$packet->data));
    }
    $path = Scratch::write($kind.'.mkv', matroskaFile([$body], $encoding));
    expect(Signal::packetsOf($path))->toBe(hash('xxh128', implode('', array_map(fn (Packet $packet): string => $packet->data, $packets))))
        ->and(Reader::read($path)->sound()[0]->timeline->samples())->toBe(1152 * count($packets));
})->with(['stripped', 'deflated']);

it('says of protected sound that it is, and reads tags of the file but not of its tracks', function () {
    [, $packets] = mp3Sound();
    $encryption = Elements::master(Id::CONTENT_ENCODINGS, Elements::master(Id::CONTENT_ENCODING, Elements::master(Id::CONTENT_ENCRYPTION)));
    $tag = fn (string $targets, string $value): string => Elements::master(Id::TAG, Elements::bytes(Id::TARGETS, $targets),
        Elements::master(Id::SIMPLE_TAG, Elements::bytes(Id::TAG_NAME, 'ARTIST'), Elements::bytes(Id::TAG_STRING, $value)));
    $tags = Elements::master(Id::TAGS, $tag(Elements::number(Id::TARGET_TRACK, 1), 'of the track'), $tag('', 'of the file'));
    $reading = Reader::read(Scratch::write('secret.mkv', matroskaFile(laced($packets, 1), $encryption, false, $tags)));
    expect($reading->findings[0]->code())->toBe('protected')
        ->and($reading->tags->get(TagField::Artist))->toBe('of the file');
});

it('reads what there is of a Matroska file that was cut short', function () {
    [, $packets] = mp3Sound();
    $whole = matroskaFile(laced($packets, 1), '', false, Elements::real(Id::DURATION, 1.0));
    $duration = Elements::master(Id::INFO, Elements::number(Id::TIMESTAMP_SCALE, 1_000_000), Elements::real(Id::DURATION, 60_000.0));
    $whole = matroskaFile(laced($packets, 1), '', false, $duration);
    $reading = Reader::read(Scratch::write('cut.mkv', substr($whole, 0, (int) (0.6 * strlen($whole)))));
    expect($reading->findings[0]->code())->toBe('cut-short')
        ->and($reading->sound()[0]->timeline->samples())->toBeGreaterThan(20_000)->toBeLessThan(50_000);
});

it('reads AAC in LOAS frames', function () {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 48000, Layout::stereo()), RateControl::exactly(128),
        [Signal::sweep(60_000), Signal::sweep(60_000, 0.2)]);
    $bytes = '';
    foreach ($packets as $index => $packet) {
        $bits = new BitWriter;
        if ($index % 10 === 0) {
            // StreamMuxConfig: version 0, same framing, one of everything, the set-up, frames with lengths, no other data, no sum
            $bits->bits(0, 1)->bits(0, 1)->bits(1, 1)->bits(0, 6 + 4 + 3);
            foreach (str_split(substr($encoder->audio()->config, 0, 2)) as $byte) {
                $bits->bits(ord($byte), 8);
            }
            $bits->bits(0, 3)->bits(255, 8)->bits(0, 1)->bits(0, 1);
        } else {
            $bits->bits(1, 1);
        }
        for ($length = strlen($packet->data); $length >= 255; $length -= 255) {
            $bits->bits(255, 8);
        }
        $bits->bits($length, 8);
        foreach (str_split($packet->data) as $byte) {
            $bits->bits(ord($byte), 8);
        }
        $frame = $bits->bytes();
        $bytes .= "\x56".chr(0xE0 | strlen($frame) >> 8).chr(strlen($frame) & 0xFF).$frame;
    }
    $path = Scratch::write('broadcast.aac', $bytes);
    $reading = Reader::read($path);
    expect($reading->container)->toBe('latm')
        ->and($reading->sound()[0]->sound->layout->name())->toBe('stereo')
        ->and($reading->sound()[0]->timeline->samples())->toBe(1024 * count($packets))
        ->and(Signal::packetsOf($path))
        ->toBe(hash('xxh128', implode('', array_map(fn (Packet $packet): string => $packet->data, $packets))))
        ->and(Signal::difference(Signal::sweep(60_000), array_slice(Signal::decodeFile($path)[0], 1600), 3000, 50_000))
        ->toBeLessThan(-20.0);
});

it('decodes WavPack in Matroska, whose blocks have lost their headers', function (Layout $layout) {
    $count = $layout->count();
    $sound = array_map(fn (int $channel): array => Signal::steps(60_000, $channel + 1), range(0, $count - 1));
    $path = Scratch::write('w.mka', Pictured::wavPack($sound, $layout));
    $track = Reader::read($path)->sound()[0];
    expect([$track->sound->codec, $track->sound->bitDepth, $track->sound->channels(), $track->timeline->samples()])
        ->toBe([Codec::WavPack, 24, $count, 60_000])
        ->and(Signal::decodeFile($path) === $sound)->toBeTrue();
    foreach (['wav', 'wavpack'] as $format) {
        $made = (new Maker)
            ->make(Planning::plan(Reader::read($path),
                Spec::sound(Outputs::named($format), RateControl::none(), Scratch::folder())), 'made');
        expect($made->plan->isKept())->toBe($format === 'wavpack')->and(Signal::decodeFile((string) $made->path) === $sound)->toBeTrue();
    }
})->with([[Layout::stereo()], [Layout::mono()], [Layout::fiveOne()]]);
