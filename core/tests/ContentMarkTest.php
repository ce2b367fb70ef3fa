<?php

declare(strict_types=1);

use Octavox\Core\Bytes\ContentMark;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Tests\Support\Scratch;

it('marks files of the same content alike, whatever they are called', function (int $bytes) {
    mt_srand($bytes);
    $content = $bytes === 0 ? '' : random_bytes($bytes);
    [$one, $other] = [Scratch::write('one', $content), Scratch::write('other', $content)];
    expect(ContentMark::compute(FileBytes::open($one)))->toBe(ContentMark::compute(FileBytes::open($other)))->toStartWith("$bytes-")
        ->and(ContentMark::isSame(FileBytes::open($one), FileBytes::open($other)))->toBeTrue();
    if ($bytes > 0) {
        $last = Scratch::write('last', substr($content, 0, -1).chr(ord($content[-1]) ^ 1));
        $longer = Scratch::write('longer', $content.'x');
        expect(ContentMark::compute(FileBytes::open($last)))->not->toBe(ContentMark::compute(FileBytes::open($one)))
            ->and(ContentMark::isSame(FileBytes::open($one), FileBytes::open($last)))->toBeFalse()
            ->and(ContentMark::compute(FileBytes::open($longer)))->not->toBe(ContentMark::compute(FileBytes::open($one)))
            ->and(ContentMark::isSame(FileBytes::open($one), FileBytes::open($longer)))->toBeFalse();
    }
})->with([0, 1, 4096, 131_071, 131_072, 131_073, 1 << 20, (1 << 20) + 1, 3_000_000]);

it('proves what the mark of a few places cannot tell', function () {
    $content = random_bytes(2_000_000);
    $one = Scratch::write('one', $content);
    // A byte that no place looks at: the mark is the same, the files are not.
    $hidden = array_values(array_filter(range(0, 1_999_999, 1000), function (int $at) use ($content, $one): bool {
        $content[$at] = chr(ord($content[$at]) ^ 1);

        return ContentMark::compute(FileBytes::open(Scratch::write('other', $content))) === ContentMark::compute(FileBytes::open($one));
    }));
    expect(count($hidden))->toBeGreaterThan(1500);
    $content[$hidden[0]] = chr(ord($content[$hidden[0]]) ^ 1);
    expect(ContentMark::isSame(FileBytes::open($one), FileBytes::open(Scratch::write('other', $content))))->toBeFalse();
})->group('slow');

it('says of a file that is not there that it is not', function () {
    expect(fn () => ContentMark::compute(FileBytes::open('/nowhere/x')))->toThrow(FileUnreadable::class)
        ->and(fn () => ContentMark::isSame(FileBytes::open(Scratch::write('a', 'x')), FileBytes::open('/nowhere/x')))
        ->toThrow(FileUnreadable::class);
});
