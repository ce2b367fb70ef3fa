<?php

declare(strict_types=1);

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BitWriter;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Tests\Support\Scratch;

it('reads numbers of every width and order', function () {
    $cursor = new Cursor("\xFE\x01\x02\x00\x00\x01\x80\x00\x00\x00\xFF\xFF\xFF\xFE\x34\x12\x78\x56\x34\x12\x00\x00\x00\x01\x00\x00\x00\x02");
    expect($cursor->u8())->toBe(254)
        ->and($cursor->u16be())->toBe(0x0102)
        ->and($cursor->u24be())->toBe(1)
        ->and($cursor->u32be())->toBe(0x80000000)
        ->and($cursor->s32be())->toBe(-2)
        ->and($cursor->u16le())->toBe(0x1234)
        ->and($cursor->u32le())->toBe(0x12345678)
        ->and($cursor->u64be())->toBe((1 << 32) + 2)
        ->and($cursor->remaining())->toBe(0);
});

it('says where bytes are missing instead of giving fewer', function () {
    expect(fn () => (new Cursor('abc', 'clip', 100))->skip(1)->take(3))->toThrow(BytesMissing::class, 'byte 101')
        ->and(fn () => (new MemoryBytes('abc'))->read(1, 3))->toThrow(BytesMissing::class)
        ->and(fn () => (new MemoryBytes('abc'))->read(-1, 1))->toThrow(BytesMissing::class)
        ->and(fn () => (new MemoryBytes('abc'))->read(PHP_INT_MAX, 1))->toThrow(BytesMissing::class)
        ->and(fn () => (new Cursor("\xFF\xFF\xFF\xFF\xFF\xFF\xFF\xFF"))->u64be())->toThrow(BytesMissing::class);
});

it('reads and writes bit fields across byte borders', function () {
    $bits = (new BitWriter)->bits(5, 3)->bits(0x1FF, 9)->bits(0, 1)->bits(0xABCDE, 20)->bytes();
    $reader = new BitReader($bits);
    expect($reader->bits(3))->toBe(5)->and($reader->bits(9))->toBe(0x1FF)->and($reader->bits(1))->toBe(0)
        ->and($reader->bits(20))->toBe(0xABCDE)
        ->and(fn () => $reader->bits(8))->toThrow(BytesMissing::class);
});

it('reads a file beyond 4 GiB exactly and counts what it fetched', function () {
    $path = Scratch::sparse('large.bin', (5 << 30) + 10, [(5 << 30) => 'far away!!']);
    $bytes = FileBytes::open($path);
    expect($bytes->size())->toBe((5 << 30) + 10)
        ->and($bytes->read(5 << 30, 10))->toBe('far away!!')
        ->and($bytes->bytesRead())->toBe(10)
        ->and(fn () => $bytes->read(5 << 30, 11))->toThrow(BytesMissing::class);
});

it('walks a table through a window with few reads', function () {
    $bytes = new MemoryBytes(str_repeat('0123456789', 100));
    $window = new Window($bytes, 990, 100);
    $read = '';
    for ($at = 0; $at < 990; $at += 10) {
        $read .= $window->read($at, 10);
    }
    expect($read)->toBe(str_repeat('0123456789', 99))
        ->and($bytes->bytesRead())->toBe(990)
        ->and(fn () => $window->read(985, 10))->toThrow(BytesMissing::class);
});

it('refuses what is no file in plain words', function () {
    expect(fn () => FileBytes::open('/nowhere/at/all.mp4'))->toThrow(FileUnreadable::class, 'no such file')
        ->and(fn () => FileBytes::open(sys_get_temp_dir()))->toThrow(FileUnreadable::class, 'folder')
        ->and(fn () => FileBytes::open("a\0b"))->toThrow(FileUnreadable::class)
        ->and(fn () => FileSink::create('/nowhere/at/all.wav'))->toThrow(FileUnwritable::class);
});

it('writes in order, replaces what was written, and never over a file that is there', function () {
    $path = Scratch::path('sink.bin');
    $sink = FileSink::create($path);
    $sink->write('head....');
    $sink->write(str_repeat('x', 300000));
    $sink->replace(4, 'done');
    $sink->write('tail');
    $sink->flush();
    $sink->close();
    expect(file_get_contents($path))->toBe('headdone'.str_repeat('x', 300000).'tail')
        ->and(fn () => FileSink::create($path))->toThrow(FileUnwritable::class);
});

it('tells of a full drive', function () {
    $sink = null;
    $write = function () use (&$sink) {
        $handle = fopen('/dev/full', 'r+b');
        $sink = (new ReflectionClass(FileSink::class))->newInstanceWithoutConstructor();
        (new ReflectionMethod(FileSink::class, '__construct'))->invoke($sink, '/dev/full', $handle);
        stream_set_write_buffer($handle, 0);
        $sink->write(str_repeat('x', 400000));
    };
    expect($write)->toThrow(FileUnwritable::class, 'drive is full');
});
