<?php

declare(strict_types=1);

use Octavox\Core\Bytes\BitReader;
use Octavox\Core\Bytes\BitWriter;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Bytes\Window;

it('reads any bit fields as they were written, and as arithmetic has them', function (int $seed) {
    mt_srand($seed);
    $fields = [];
    $writer = new BitWriter;
    $text = '';
    for ($number = 0; $number < 300; $number++) {
        $count = mt_rand(1, 32);
        $value = mt_rand(0, (1 << $count) - 1);
        $fields[] = [$count, $value];
        $writer->bits($value, $count);
        $text .= str_pad(decbin($value), $count, '0', STR_PAD_LEFT);
    }
    $bytes = $writer->bytes();
    expect(implode('', array_map(fn (string $byte): string => str_pad(decbin(ord($byte)), 8, '0', STR_PAD_LEFT), str_split($bytes))))
        ->toBe(str_pad($text, 8 * strlen($bytes), '0'));
    $reader = new BitReader($bytes);
    foreach ($fields as [$count, $value]) {
        expect($reader->bits($count))->toBe($value);
    }
    expect($reader->remaining())->toBeLessThan(8)->and(fn () => $reader->bits(8))->toThrow(BytesMissing::class);
})->with(range(1, 6));

it('writes only the lowest bits, and whole bytes only at their borders', function () {
    expect((new BitWriter)->bits(-1, 4)->bits(0, 4)->bytes())->toBe("\xF0")
        ->and((new BitWriter)->bits(0x1FF, 8)->bytes())->toBe("\xFF")
        ->and((new BitWriter)->bits(1, 1)->align()->append('ab')->bytes())->toBe("\x80ab")
        ->and(fn () => (new BitWriter)->bits(1, 3)->append('x'))->toThrow(LogicException::class)
        ->and((new BitWriter)->bytes())->toBe('');
});

it('reads numbers of every width and order', function (string $method, string $bytes, int|float $value) {
    $cursor = new Cursor($bytes.'rest');
    expect($cursor->{$method}())->toBe($value)->and($cursor->rest())->toBe('rest')
        ->and(fn () => (new Cursor(substr($bytes, 0, -1)))->{$method}())->toThrow(BytesMissing::class);
})->with([
    ['u8', "\xFF", 255],
    ['u16be', "\x01\x02", 0x102],
    ['u16le', "\x01\x02", 0x201],
    ['u24be', "\x01\x02\x03", 0x10203],
    ['u32be', "\xFF\xFF\xFF\xFE", 0xFFFFFFFE],
    ['u32le', "\xFE\xFF\xFF\xFF", 0xFFFFFFFE],
    ['s32be', "\xFF\xFF\xFF\xFE", -2],
    ['s32be', "\x7F\xFF\xFF\xFF", 0x7FFFFFFF],
    ['u64be', "\0\0\0\1\0\0\0\2", 0x100000002],
    ['u64le', "\2\0\0\0\1\0\0\0", 0x100000002],
    ['s64be', "\xFF\xFF\xFF\xFF\xFF\xFF\xFF\xFF", -1],
    ['f64be', "\x3F\xF8\0\0\0\0\0\0", 1.5],
]);

it('keeps its place among bytes', function () {
    $cursor = new Cursor('abcdefgh', 'eight', 100);
    expect($cursor->take(2))->toBe('ab')->and($cursor->position())->toBe(2)->and($cursor->remaining())->toBe(6)
        ->and($cursor->ahead(1, 2))->toBe('de')->and($cursor->position())->toBe(2)
        ->and($cursor->skip(4)->take(2))->toBe('gh')->and($cursor->remaining())->toBe(0)
        ->and(fn () => $cursor->skip(1))->toThrow(BytesMissing::class);
});

it('takes stretches apart and joins those that follow each other', function (int $seed) {
    mt_srand($seed);
    $bytes = random_bytes(5000);
    $source = new MemoryBytes($bytes, 'five');
    foreach (range(1, 30) as $time) {
        $offset = mt_rand(0, 5000);
        $length = mt_rand(0, 5000 - $offset);
        $stretch = Stretch::in($source, $offset, $length);
        $cut = mt_rand(0, $length);
        $rest = $stretch->after($cut);
        $head = Stretch::in($source, $offset, $cut);
        expect($stretch->bytes())->toBe(substr($bytes, $offset, $length))
            ->and(implode('', [...$stretch->pieces()]))->toBe(substr($bytes, $offset, $length))
            ->and($rest->bytes())->toBe(substr($bytes, $offset + $cut, $length - $cut))
            ->and($head->joined($rest)?->bytes())->toBe($stretch->bytes())
            ->and($cut === 0 || $length === $cut || $rest->joined($head) === null)->toBeTrue()
            ->and($head->joined(Stretch::of('x')))->toBeNull();
    }
    foreach ([[-1, 1], [0, 5001], [5001, 0], [4999, 2], [PHP_INT_MAX, 1], [1, PHP_INT_MAX]] as [$offset, $length]) {
        expect(fn () => Stretch::in($source, $offset, $length))->toThrow(BytesMissing::class);
    }
})->with([1, 2]);

it('reads through a window what stands there, in any order', function (int $seed) {
    mt_srand($seed);
    $bytes = random_bytes(300_000);
    $source = new MemoryBytes($bytes, 'long');
    $window = new Window($source, strlen($bytes));
    foreach (range(1, 200) as $time) {
        $offset = mt_rand(0, 299_999);
        $length = mt_rand(0, min(70_000, 300_000 - $offset));
        if ($window->read($offset, $length) !== substr($bytes, $offset, $length)) {
            expect([$offset, $length])->toBe('alike');
        }
    }
    expect(fn () => $window->read(299_999, 2))->toThrow(BytesMissing::class);
})->with([1, 2, 3]);
