<?php

declare(strict_types=1);

use Octavox\Core\Bytes\Fence;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Make\Workplace;
use Octavox\Core\Tests\Support\Scratch;

afterEach(fn () => Fence::around([]));

it('judges what was opened, not what lies there by now', function () {
    $folder = Scratch::folder();
    [$inside, $outside] = ["$folder/within", "$folder/secret.wav"];
    mkdir($inside);
    file_put_contents($outside, 'secret');
    file_put_contents("$inside/a.wav", 'sound');
    Fence::around([$inside]);
    $handle = fopen("$inside/a.wav", 'rb');
    expect(Fence::holds("$inside/a.wav", $handle))->toBeTrue();
    // Between the opening and the look a link was another file: what was opened is not what lies there now.
    $stranger = fopen($outside, 'rb');
    expect(Fence::holds("$inside/a.wav", $stranger))->toBeFalse();
    rename("$inside/a.wav", "$inside/b.wav");
    file_put_contents("$inside/a.wav", 'other');
    expect(Fence::holds("$inside/a.wav", $handle))->toBeFalse()->and(Fence::holds("$inside/b.wav", $handle))->toBeTrue();
    // What leads out is refused, be it the file or a folder on the way.
    symlink($outside, "$inside/link.wav");
    symlink($folder, "$inside/up");
    foreach (["$inside/link.wav", "$inside/up/secret.wav"] as $path) {
        expect(Fence::holds($path, fopen($path, 'rb')))->toBeFalse()->and(fn () => FileBytes::open($path))->toThrow(FileUnreadable::class);
    }
    expect(FileBytes::open("$inside/a.wav")->read(0, 5))->toBe('other')->and(Fence::holdsFolder($inside.'/new/folder'))->toBeTrue()
        ->and(Fence::holdsFolder("$inside/up"))->toBeFalse();
});

it('makes nothing in a folder that leads out', function () {
    $folder = Scratch::folder();
    mkdir("$folder/within");
    mkdir("$folder/outside");
    symlink("$folder/outside", "$folder/within/link");
    Fence::around(["$folder/within"]);
    expect(fn () => (new Workplace("$folder/within/link"))->prepare())->toThrow(FileUnwritable::class)
        ->and(fn () => (new Workplace("$folder/within/link/new"))->prepare())->toThrow(FileUnwritable::class)
        ->and(is_dir("$folder/outside/new"))->toBeFalse();
    (new Workplace("$folder/within/new"))->prepare();
    expect(is_dir("$folder/within/new"))->toBeTrue();
});
