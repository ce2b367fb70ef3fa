<?php

declare(strict_types=1);

use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Mpeg\ElementaryTrack;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\TransportStream\ProgramTables;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;
use Octavox\Core\Tests\Support\TimeStamp;

/**
 * Packets of 188 bytes, cut by hand: ISO/IEC 13818-1, 2.4.3.2. The last is filled up by an adaptation field, or with bytes for sections.
 */
function transportPackets(int $pid, string $payload, bool $section = false, int $room = 184): string
{
    static $counter = 0;
    $out = '';
    foreach (str_split($payload, $room) as $index => $part) {
        $head = "\x47".pack('n', ($index === 0 ? 0x4000 : 0) | $pid);
        $filling = 184 - strlen($part);
        $out .= $section || $filling === 0 ? $head.chr(0x10 | $counter++ & 15).$part.str_repeat("\xFF", $filling)
            : $head.chr(0x30 | $counter++ & 15).chr($filling - 1).($filling > 1 ? "\0".str_repeat("\xFF", $filling - 2) : '').$part;
    }

    return $out;
}

/** A section of a table with its length; nobody here looks at the sum behind it. */
function tableSection(int $table, string $body): string
{
    return chr($table).pack('n', 0xB000 | strlen($body) + 9).pack('n', 1)."\xC1\0\0".$body.'sum!';
}

/** @param  list<array{int, int, string}>  $streams  type, identity, descriptors */
function programMap(array $streams, string $program = ''): string
{
    return tableSection(2, pack('n2', 0xE100, 0xF000 | strlen($program)).$program.implode('', array_map(
        fn (array $stream): string => chr($stream[0]).pack('n2', 0xE000 | $stream[1], 0xF000 | strlen($stream[2])).$stream[2], $streams)));
}

/** @param  list<array{int, int, string}>  $streams */
function transportTables(array $streams, string $program = ''): string
{
    return transportPackets(0, "\0".tableSection(0, pack('n2', 1, 0xE000 | 0x1000)), true)
        .transportPackets(0x1000, "\0".programMap($streams, $program), true);
}

/** @return array{string, string} packets of a stream of layer II, and the frames in them */
function layerTwo(int $pid, int $frames = 40, int $from = 9000): array
{
    [, $packets] = Signal::encode(new AudioFormat(Codec::Mp2, 48_000, Layout::stereo()), RateControl::exactly(192),
        [Signal::sweep(1152 * $frames - 2000), Signal::sweep(1152 * $frames - 2000)]);
    $bytes = '';
    foreach ($packets as $number => $packet) {
        $ticks = $from + 2160 * $number;
        $bytes .= transportPackets($pid,
            "\0\0\1\xC0".pack('n', strlen($packet->data) + 8)."\x80\x80\x05".TimeStamp::of(2, $ticks).$packet->data);
    }

    return [$bytes, implode('', array_map(fn (Packet $packet): string => $packet->data, $packets))];
}

it('names every stream by its type, or by what describes it', function (int $type, string $descriptors, ?string $label, ?string $language) {
    $tables = new MemoryBytes(transportTables([[0x03, 0x101, ''], [$type, 0x102, $descriptors]]));
    $named = array_map(fn (ElementaryTrack $track): array => [$track->id, $track->variant !== '' ? $track->variant
        : CodecModules::of($track->codec)->label(),
        $track->language],
        (new ProgramTables($tables, 0, 188))->read());
    expect($named)->toBe($label === null ? [[0x101, 'MPEG Layer II', null]] : [[0x101, 'MPEG Layer II', null], [0x102, $label, $language]]);
})->with([
    'MPEG-1 pictures' => [0x01, '', 'MPEG-1 video', null], 'MPEG-2 pictures' => [0x02, '', 'MPEG-2 video', null],
    'H.264' => [0x1B, '', 'H.264', null],
    'H.265' => [0x24, '', 'H.265', null], 'MPEG-4' => [0x10, '', 'MPEG-4 Visual', null],
    'layer II, with a language' => [0x04, "\x0A\x04cym\0", 'MPEG Layer II', 'cym'], 'AAC' => [0x0F, "\x0A\x04deu\0", 'AAC', 'deu'],
    'AAC in LOAS' => [0x11, '', 'AAC', null], 'AC-3 of broadcasting over there' => [0x81, '', 'AC-3', null],
    'AC-3 by its descriptor' => [0x06, "\x6A\x01\0\x0A\x04fra\0", 'AC-3', 'fra'],
    'AC-3 by its registration' => [0x06, "\x05\x04AC-3", 'AC-3', null], 'E-AC-3 by its descriptor' => [0x06, "\x7A\x01\0", 'E-AC-3', null],
    'E-AC-3 by its registration' => [0x06, "\x05\x04EAC3", 'E-AC-3', null], 'E-AC-3' => [0x87, '', 'E-AC-3', null],
    'DTS' => [0x06, "\x7B\x01\0", 'DTS', null],
    'AAC by its descriptor' => [0x06, "\x7C\x01\0", 'AAC', null], 'Opus' => [0x06, "\x05\x04Opus", 'Opus in a transport stream', null],
    'sound of high-definition discs' => [0x83, '', 'TrueHD', null], 'subtitles' => [0x06, "\x59\x08eng\x10\0\1\0\1", null, null],
    'a private stream' => [0x06, '', null, null],
    'another registration' => [0x06, "\x05\x04ZZZZ", null, null],
    'PCM that is none, without the registration of discs' => [0x80, '', null, null],
]);

it('puts tables together however they are cut', function (Closure $tables) {
    // Descriptors of private kinds make the map longer than a packet.
    $map = programMap([[0x06, 0x120, "\xA0\xC8".str_repeat('d', 200)], [0x03, 0x101, "\x0A\x04cym\0"],
        [0x06, 0x121, "\xA1\x96".str_repeat('e', 150)]]);
    [$sound, $frames] = layerTwo(0x101);
    $path = Scratch::write('tables.ts',
        transportPackets(0, "\0".tableSection(0, pack('n2', 1, 0xE000 | 0x1000)), true).$tables($map).$sound);
    expect(Reader::read($path)->sound()[0]->language)->toBe('cym')->and(Signal::packetsOf($path))->toBe(hash('xxh128', $frames));
})->with([
    'in as few packets as can be' => [fn (string $map): string => transportPackets(0x1000, "\0".$map, true)],
    'twice' => [fn (string $map): string => transportPackets(0x1000, "\0".$map, true).transportPackets(0x1000, "\0".$map, true)],
    'behind another section' => [fn (string $map): string => transportPackets(0x1000, "\0".tableSection(0x42, str_repeat('x', 60)).$map,
        true)],
    'the end before the next begin' => [function (string $map): string {
        // The rest of the map stands behind the pointer of the packet in which the next section begins.
        $rest = substr($map, 2 * 184 - 1);

        return transportPackets(0x1000, "\0".substr($map, 0, 2 * 184 - 1), true).transportPackets(0x1000,
            chr(strlen($rest)).$rest.tableSection(0x42, 'x'), true);
    }],
    'the start missed at first' => [fn (string $map): string => substr(transportPackets(0x1000, "\0".$map, true), 188)
        .transportPackets(0x1000, "\0".$map, true)],
    'other packets between' => [fn (string $map): string => implode(transportPackets(0x1FFF, str_repeat("\xFF", 184)),
        str_split(transportPackets(0x1000, "\0".$map, true), 188))],
]);

it('finds its way past what is damaged, sent twice, locked or filled up', function (Closure $between, int $lost) {
    [$sound, $frames] = layerTwo(0x101);
    $packets = str_split($sound, 188);
    $half = 4 * intdiv(count($packets), 8);
    $path = Scratch::write('damaged.ts', transportTables([[0x03, 0x101, '']]).implode('', array_slice($packets, 0, $half))
        .$between($packets[$half - 1], $packets[$half]).implode('', array_slice($packets, $half)));
    $reading = Reader::read($path);
    $samples = array_map(count(...), Signal::decodeFile($path));
    expect($reading->sound()[0]->timeline->coded)->toBe(intdiv(strlen($frames), 576) * 1152)->and($samples[0])
        ->toBe($reading->sound()[0]->timeline->samples());
    $lost > 0 || expect(Signal::packetsOf($path))->toBe(hash('xxh128', $frames));
})->with([
    'nothing' => [fn (): string => '', 0], 'a packet twice' => [fn (string $before, string $after): string => $after, 0],
    'text' => [fn (): string => str_repeat('Wrenfield ', 500), 0],
    'bytes that look like a packet' => [fn (): string => 'x'.str_repeat("\x47".str_repeat('y', 150), 9), 0],
    'filling' => [fn (): string => transportPackets(0x1FFF, str_repeat("\xFF", 184)), 0],
    'another stream' => [fn (): string => transportPackets(0x190, str_repeat('z', 999)), 0],
    'a locked packet' => [fn (string $before, string $after): string => substr_replace($after, chr(ord($after[3]) | 0x80), 3, 1), 0],
    'only an adaptation field' => [fn (): string => "\x47\x01\x01\x20\xB7\0".str_repeat("\xFF", 182), 0],
]);

it('reads packets with time before them or correction behind them, from any byte on', function (int $step, int $before, int $cut) {
    [$sound, $frames] = layerTwo(0x101);
    $bytes = implode('',
        array_map(fn (string $packet): string => str_repeat("\x11", $before).$packet.str_repeat("\x22", $step - 188 - $before),
            str_split(transportTables([[0x03, 0x101, '']]).$sound, 188)));
    $junk = str_repeat("\x33", $cut);
    $path = Scratch::write('steps.ts', $junk.$bytes);
    expect(Signal::packetsOf($path))->toBe(hash('xxh128', $frames));
})->with([[188, 0, 0], [188, 0, 77], [192, 4, 0], [192, 4, 100], [204, 0, 0], [204, 0, 50]]);

it('refuses a stream in which no table names anything', function () {
    [$sound] = layerTwo(0x101);
    $read = fn (string $bytes): Reading => Reader::read(Scratch::write('no.ts', $bytes));
    expect(fn () => $read($sound))->toThrow(NoTracks::class)->and(fn () => $read(transportTables([[0x06, 0x101, '']]).$sound))
        ->toThrow(NoTracks::class)
        ->and(fn () => $read(transportPackets(0, "\0".tableSection(0, pack('n2', 0, 0xE010)), true).$sound))->toThrow(NoTracks::class);
});

it('takes AAC out of a stream to the frame', function () {
    [$encoder, $packets] = Signal::encode(new AudioFormat(Codec::Aac, 44_100, Layout::stereo()), RateControl::exactly(96),
        [Signal::sweep(50_000), Signal::sweep(50_000)]);
    $bytes = transportTables([[0x0F, 0x101, '']]);
    // Three frames a packet, and a time only for each packet.
    foreach (array_chunk($packets, 3) as $some) {
        $ticks = 9000 + intdiv($some[0]->start * 90_000, 44_100);
        $data = implode('',
            array_map(fn (Packet $one): string => AdtsFrameParser::header($encoder->audio()->config,
                strlen($one->data)).$one->data, $some));
        $bytes .= transportPackets(0x101, "\0\0\1\xC0".pack('n', strlen($data) + 8)."\x80\x80\x05".TimeStamp::of(2, $ticks).$data);
    }
    $path = Scratch::write('aac.ts', $bytes);
    expect(Signal::packetsOf($path))->toBe(hash('xxh128', implode('', array_column($packets, 'data'))))
        ->and(Reader::read($path)->sound()[0]->timeline->coded)->toBe(1024 * count($packets));
});
