<?php

declare(strict_types=1);

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Container\Containers;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\IsoMedia\M4aWriter;
use Octavox\Core\Container\IsoMedia\StreamTrack;
use Octavox\Core\Container\RunSource;
use Octavox\Core\Make\PipedPackets;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\PacketRun;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockSplitter;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return ?list<PacketRun> */
function runsOf(Demuxer $media): ?array
{
    $track = array_values(array_filter($media->tracks(), fn (Track $track): bool => $track->sound !== null))[0];
    $runs = $media instanceof RunSource ? $media->runs($track) : null;

    return $runs === null ? null : [...$runs];
}

/** @return list<Packet> */
function packetsIn(Demuxer $media): array
{
    $track = array_values(array_filter($media->tracks(), fn (Track $track): bool => $track->sound !== null))[0];

    return [...$media->packets($track, 0, PHP_INT_MAX >> 2)];
}

/** Made-up packets of AAC, of sizes that grow and shrink: nobody decodes them here. */
function manyPackets(int $count): array
{
    return array_map(fn (int $index): Packet => new Packet(str_repeat(chr($index % 256), 3 + $index * 7 % 50), 1024 * $index, 1024),
        range(0, $count - 1));
}

function aacForm(): AudioFormat
{
    return new AudioFormat(Codec::Aac, 48_000, Layout::stereo(), null, "\x11\x90", 1024);
}

/** @param  list<Packet>  $packets */
function m4aOf(array $packets): string
{
    $sink = new MemorySink;
    $writer = new M4aWriter($sink, aacForm(), Tags::none(), 1024 * count($packets), 0);
    array_walk($packets, $writer->write(...));
    $writer->finish(1024 * count($packets), aacForm());

    return $sink->bytes();
}

it('gives packets many at a time, the same as one by one', function (int $count) {
    $media = Containers::open(new MemoryBytes(m4aOf(manyPackets($count))));
    $packets = packetsIn($media);
    $runs = (array) runsOf($media);
    $at = 0;
    foreach ($runs as $run) {
        $sizes = array_values(unpack('N*', $run->sizes));
        $own = array_slice($packets, $at, count($sizes));
        expect($run->start)->toBe(1024 * $at)->and($run->each)->toBe(1024)->and($run->length())->toBe(1024 * count($sizes))
            ->and($run->data->bytes() === implode('', array_map(fn (Packet $packet): string => $packet->data, $own)))->toBeTrue()
            ->and($sizes)->toBe(array_map(fn (Packet $packet): int => strlen($packet->data), $own));
        $at += count($sizes);
    }
    expect($at)->toBe($count)->and(count($packets))->toBe($count);
})->with(['few' => [3], 'more than a table is read of at once' => [9000], 'more chunks than that, nearly' => [24 * 400]]);

it('writes runs as it writes packets one by one', function () {
    $packets = manyPackets(500);
    $sink = new MemorySink;
    $writer = new M4aWriter($sink, aacForm(), Tags::none(), 512_000, 0);
    foreach ([[0, 100], [100, 1], [101, 399]] as [$from, $count]) {
        $own = array_slice($packets, $from, $count);
        $writer->writeRun(new PacketRun(Stretch::of(implode('', array_map(fn (Packet $packet): string => $packet->data, $own))),
            pack('N*', ...array_map(fn (Packet $packet): int => strlen($packet->data), $own)), 1024 * $from, 1024));
    }
    $writer->finish(512_000, aacForm());
    $again = Containers::open(new MemoryBytes($sink->bytes()));
    $before = Containers::open(new MemoryBytes(m4aOf($packets)));
    expect(packetsIn($again))->toEqual(packetsIn($before))->and($again->tracks()[0]->timeline)->toEqual($before->tracks()[0]->timeline);
});

it('has packets taken one by one where they last differently, are in fragments, or are single frames of PCM', function (string $bytes) {
    expect(runsOf(Containers::open(new MemoryBytes($bytes))))->toBeNull();
})->with([
    'another duration in the midst' => [fn (): string => m4aOf([...manyPackets(3), new Packet('late', 3072, 5000), new Packet('next',
        8072, 1024), new Packet('last', 9096, 1024)])],
    'fragments' => [fn (): string => (string) file_get_contents(__DIR__.'/fixtures/other-fragmented.mp4')],
    'PCM' => [fn (): string => Signal::movie([Signal::pcmTrack([Signal::steps(500, 1)], Octavox\Core\Media\SampleFormat::signed(16))])],
]);

it('takes a shorter last packet for one of a run', function () {
    $media = Containers::open(new MemoryBytes(m4aOf([...manyPackets(5), new Packet('end', 5120, 300)])));
    expect(array_sum(array_map(fn (PacketRun $run): int => intdiv(strlen($run->sizes), 4), (array) runsOf($media))))->toBe(6);
});

it('says which samples are keys once there is one that is none', function () {
    $table = function (array $keys): ?string {
        $track = new StreamTrack('vide', Signal::box('avc1', str_repeat("\0", 78)), 1000);
        foreach ($keys as $index => $key) {
            $track->add(100 * $index, 100, 40, 0, $key);
        }
        $track->addRun(100 * count($keys), pack('N2', 5, 6), 40);
        $track->endChunk();
        $box = $track->box(1, 1000, false);
        $at = strpos($box, 'stss');

        return $at === false ? null
            : implode(' ', array_slice(unpack('N*', substr($box, $at + 8, unpack('N', substr($box, $at - 4, 4))[1] - 12)), 1));
    };
    expect($table([true, true]))->toBeNull()->and($table([true, false, true, false]))->toBe('1 3 5 6')->and($table([false]))->toBe('2 3')
        ->and($table([]))->toBeNull();
});

it('hands packets from one process to another', function () {
    $stream = fopen('php://memory', 'r+b');
    foreach ([['one', 0, 5], ['second', 5, 6], [str_repeat('x', 40), 11, 1], ['', 12, 2]] as [$data, $start, $length]) {
        fwrite($stream, PipedPackets::pack(new Packet($data, $start, $length)));
    }
    rewind($stream);
    $track = Track::sound(1, aacForm(), Timeline::plain(0), 0);
    $packets = new PipedPackets($stream, $track);
    $read = [...$packets->packets($track, 0, 0)];
    expect(array_map(fn (Packet $packet): array => [$packet->data, $packet->start, $packet->length], $read))
        ->toBe([['one', 0, 5], ['second', 5, 6], [str_repeat('x', 40), 11, 1], ['', 12, 2]])
        ->and($packets->hash())->toBe(hash('xxh128', 'onesecond'.str_repeat('x', 40)));
});

it('divides blocks where something else begins, and loses nothing', function (array $marks, array $pieces) {
    $blocks = [Block::fromChannels([[1.0, 2.0, 3.0], [1.5, 2.5, 3.5]]), Block::fromChannels([[4.0], [4.5]]),
        Block::fromChannels([[5.0, 6.0, 7.0, 8.0], [5.5, 6.5, 7.5, 8.5]])];
    $parted = array_map(fn (Block $block): array => $block->toChannels()[0], [...BlockSplitter::at($blocks, $marks)]);
    expect($parted)->toBe($pieces);
})->with([
    'nowhere' => [[], [[1.0, 2.0, 3.0], [4.0], [5.0, 6.0, 7.0, 8.0]]],
    'at the start' => [[0], [[1.0, 2.0, 3.0], [4.0], [5.0, 6.0, 7.0, 8.0]]],
    'between two' => [[3, 4], [[1.0, 2.0, 3.0], [4.0], [5.0, 6.0, 7.0, 8.0]]],
    'within' => [[1, 5, 7], [[1.0], [2.0, 3.0], [4.0], [5.0], [6.0, 7.0], [8.0]]],
    'beyond the end' => [[2, 100], [[1.0, 2.0], [3.0], [4.0], [5.0, 6.0, 7.0, 8.0]]],
]);

it('tells a checksum only of what came in order', function () {
    $sink = FileSink::create(Scratch::folder().'/a');
    $sink->write(str_repeat('a', 40_000));
    $sink->write('b');
    expect($sink->checksum())->toBe(hash('xxh128', str_repeat('a', 40_000).'b'));
    $sink->replace(3, 'c');
    expect($sink->checksum())->toBeNull();
    $sink->close();
    $announced = FileSink::create(Scratch::folder().'/b');
    $announced->needsNoChecksum();
    $announced->write('abc');
    expect($announced->checksum())->toBeNull();
    $announced->close();
});
