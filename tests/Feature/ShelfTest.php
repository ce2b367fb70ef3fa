<?php

declare(strict_types=1);

use App\Files\OutsideShelf;
use App\Files\Shelf;

it('is open downwards only, also beside a folder whose name begins alike', function (string $path) {
    mkdir($this->home.'/open/deep', recursive: true);
    mkdir($this->home.'/open-not');
    file_put_contents($this->home.'/open-not/secret.wav', 'x');
    file_put_contents($this->home.'/open/a.wav', 'x');
    symlink($this->home.'/open-not', $this->home.'/open/beside');
    $shelf = new Shelf('Open', $this->home.'/open');
    expect($shelf->resolve('a.wav'))->toBe(realpath($this->home.'/open/a.wav'))
        ->and(fn () => $shelf->resolve($path))->toThrow(OutsideShelf::class);
})->with(['beside/secret.wav', 'beside', '../open-not/secret.wav', 'deep/../a.wav', './a.wav', "a.wav\0"]);
